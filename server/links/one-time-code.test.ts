/** Codes against the plainest account of them: one that is right, once, for fifteen minutes, and five tries. */
import { CODE_MINUTES } from '@gatepath/contract';
import fc from 'fast-check';
import { type CodeRow, digitsOf, judgeCode, MAX_TRIES, newCode, sentJustNow, wrongTry } from './one-time-code';

const T0 = Date.parse('2026-12-01T12:00:00Z');
const after = (seconds: number) => new Date(T0 + seconds * 1_000);
const fresh = (row: Partial<CodeRow> = {}): CodeRow => ({ code_hash: 'h', code_at: after(0), tries: 0, ...row });

test('a code is right until its last minute has passed', () => {
  expect(judgeCode(fresh(), 'h', after(CODE_MINUTES * 60))).toEqual({ is: 'right', repeated: false });
  expect(judgeCode(fresh(), 'h', after(CODE_MINUTES * 60 + 1))).toEqual({ is: 'old' });
  expect(judgeCode(fresh({ code_at: null }), 'h', after(0))).toEqual({ is: 'old' });
  expect(judgeCode(fresh(), 'x', after(0))).toEqual({ is: 'wrong', tries: 1, locked: false });
  expect(judgeCode(null, 'h', after(0))).toEqual({ is: 'wrong', tries: 1, locked: false });
});

test('what was used is right again for a moment where repeats are noted, and wrong where they are not', () => {
  const used = { code_hash: null, used_hash: 'h', used_at: after(0) };
  expect(judgeCode(fresh(used), 'h', after(14))).toEqual({ is: 'right', repeated: true });
  expect(judgeCode(fresh(used), 'h', after(15))).toMatchObject({ is: 'wrong' });
  expect(judgeCode(fresh({ code_hash: null }), 'h', after(1))).toMatchObject({ is: 'wrong' });
});

test('another code may be sent after a minute, or at once when the last was used', () => {
  expect(sentJustNow(fresh(), after(59))).toBe(true);
  expect(sentJustNow(fresh(), after(60))).toBe(false);
  expect(sentJustNow(fresh({ code_hash: null }), after(1))).toBe(false);
  expect(sentJustNow(null, after(0))).toBe(false);
});

test('the fifth wrong code locks, whatever is given between, and a code is six digits', () => {
  expect(wrongTry(fresh({ tries: MAX_TRIES - 2 }))).toEqual({ is: 'wrong', tries: MAX_TRIES - 1, locked: false });
  expect(wrongTry(fresh({ tries: MAX_TRIES - 1 }))).toEqual({ is: 'wrong', tries: MAX_TRIES, locked: true });
  for (let i = 0; i < 200; i++) expect(newCode()).toMatch(/^\d{6}$/);
  expect(digitsOf(' 12 34-56\u00a0')).toBe('123456');
});

test('in any order of sending, giving and waiting, no code opens twice or late', () => {
  const step = fc.oneof(
    fc.record({ act: fc.constant('send' as const), code: fc.constantFrom('a', 'b') }),
    fc.record({ act: fc.constant('give' as const), code: fc.constantFrom('a', 'b', 'c') }),
    fc.record({ act: fc.constant('wait' as const), seconds: fc.integer({ min: 1, max: 1_000 }) }),
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
      let seconds = 0;
      let row = null as CodeRow | null;
      // The model: only the code that was sent last is right, until it is used or too old.
      let open = null as { code: string; at: number } | null;
      for (const s of steps) {
        if (s.act === 'wait') seconds += s.seconds;
        else if (s.act === 'send') {
          row = { tries: row?.tries ?? 0, code_hash: s.code, code_at: after(seconds) };
          open = { code: s.code, at: seconds };
        } else {
          const verdict = judgeCode(row, s.code, after(seconds));
          const may = open?.code === s.code && seconds - open.at <= CODE_MINUTES * 60;
          expect(verdict.is === 'right').toBe(may);
          if (verdict.is === 'right') {
            row = { ...row!, code_hash: null, tries: 0 };
            open = null;
          } else if (verdict.is === 'wrong') row = { code_hash: null, code_at: null, ...row, tries: verdict.tries };
        }
      }
    }),
  );
});
