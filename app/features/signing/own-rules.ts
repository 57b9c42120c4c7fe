import type { SigningView } from '@gatepath/contract';

/** A mark of the person who is signing. */
export type OwnMark = SigningView['marks'][number];

/** What a mark's words are checked by, as the core wants it. */
export function rulesOf(mark: OwnMark) {
  return {
    kind: mark.kind,
    options: mark.options,
    ...(mark.check ? { check: mark.check } : {}),
    ...(mark.several ? { lines: 'several' as const } : {}),
  };
}
