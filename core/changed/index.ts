/**
 * Comparing two versions of one document: what was struck, inserted and moved, in words and ink. Knows pages, words
 * and positions; must not know deals, packets, or why somebody compares.
 */
export { compareVersions, COMPARE_LIMITS } from './compare';
export {
  ASIDES,
  CHANGE_KINDS,
  type AsideKind,
  type Change,
  type ChangeKind,
  type Comparison,
  type Passage,
  type VersionPage,
} from './types';
export { ASIDE_WORDS, kindInWords, MARK_INKS, markedAs, pageOf } from './words';
