/** A mark of a client's own, with usual values, for tests of the ceremony. */
import type { OwnMark } from '../features/signing/own-rules';

export const ownMark = (id: string, more: Partial<OwnMark> = {}): OwnMark => ({
  id,
  documentId: 'd',
  page: 1,
  kind: 'text',
  rect: { x: 0, y: 0, w: 50, h: 20 },
  required: true,
  label: null,
  help: null,
  several: false,
  value: null,
  check: null,
  options: [],
  group: null,
  redlineId: null,
  done: false,
  automatic: false,
  ...more,
});
