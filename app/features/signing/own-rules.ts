import type { OwnMark } from './use-signing';

/** What a mark's words are checked by, as the core wants it. */
export function rulesOf(mark: OwnMark) {
  return {
    kind: mark.kind,
    options: mark.options,
    ...(mark.check ? { check: mark.check } : {}),
    ...(mark.several ? { lines: 'several' as const } : {}),
  };
}
