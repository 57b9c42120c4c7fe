import type { SigningView } from '@gatepath/contract';

/** A mark of the person who is signing. */
export type OwnMark = SigningView['marks'][number];

/** Returns the rules for a mark's value, as the core needs them. */
export function rulesOf(mark: OwnMark) {
  return {
    kind: mark.kind,
    options: mark.options,
    ...(mark.check ? { check: mark.check } : {}),
    ...(mark.several ? { lines: 'several' as const } : {}),
  };
}
