/** Tests what each lock of a kit prevents, in a draft and after sending. */
import type { DraftEdit } from '../packet';
import { party } from '../test/support';
import { brokenLock, lockBrokenBy, lockOf, LOCKS } from '.';

test('an edit breaks the lock it is about, and no other', () => {
  const edits: DraftEdit[] = [
    { op: 'set', field: 'subject', value: 'x' },
    { op: 'drop', list: 'gates', id: 'g' },
  ];
  expect(edits.map(lockOf)).toEqual(['message', 'path']);
  for (const lock of LOCKS) {
    const broken = brokenLock(edits, { [lock]: { memberId: 'o', name: 'Odile' } });
    expect(broken).toEqual(['message', 'path'].includes(lock) ? { lock, by: 'Odile' } : null);
  }
});

test('under way too a lock holds for what it is about, and never for what has to be done when something happens', () => {
  const locks = { path: { memberId: 'o', name: 'Odile' }, people: { memberId: 'o', name: 'Odile' } };
  expect(lockBrokenBy('set_path', locks)).toEqual({ lock: 'path', by: 'Odile' });
  expect(lockBrokenBy('change_act', locks)).toEqual({ lock: 'people', by: 'Odile' });
  for (const free of ['drop_party', 'correct_party', 'extend', 'nudge', 'correct'] as const)
    expect(lockBrokenBy(free, locks)).toBeNull();
  expect(lockBrokenBy('change_marks', locks)).toBeNull();
  // With people locked, names and addresses can still be corrected; acts cannot be changed.
  const wren = party('wren');
  const put = (change: object): DraftEdit => ({ op: 'put', list: 'parties', item: { ...wren, ...change } });
  expect(brokenLock([put({ email: 'new@example.com', name: 'Wren Adler' })], locks, { parties: [wren] })).toBeNull();
  expect(brokenLock([put({ act: 'copy' })], locks, { parties: [wren] })?.lock).toBe('people');
  expect(brokenLock([put({ id: 'another' })], locks, { parties: [wren] })?.lock).toBe('people');
});
