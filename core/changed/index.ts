/**
 * Two versions of one paper: what was struck, put in, moved, in words and in ink. It knows pages, words and where they lie; it
 * must not know of deals, packets, or why somebody compares.
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
