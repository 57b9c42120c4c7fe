/** What the screen shows at once is what the core decides: on acts nobody thought of, one after another. */
import fc from 'fast-check';
import type { SigningView } from '@gatepath/contract';
import { filledHow, isAutomatic, MARK_KINDS, type Mark, type MarkKind } from '@gatepath/core/packet';
import '@gatepath/core/patterns';
import { isTurnOf, shownFills } from '@gatepath/core/routing';
import { HAND, TestPacket } from '../../../core/test/packet';
import { mark, planOf } from '../../../core/test/support';
import { showAct, type PendingAct } from './acts';
import { ownMark } from '../../test/own-mark';

/** Two marks of every kind that a party fills, the second one not required; choices in pairs, some with bounds. */
const MARKS: Mark[] = MARK_KINDS.filter((k) => filledHow(k).by !== 'sender' && filledHow(k).by !== 'file').flatMap(
  (kind, i) =>
    [0, 1].map((n): Mark => ({
      ...mark(`${kind}-${n}`, 'wren', kind, 1, { x: 40 + n * 200, y: 40 + i * 24, w: 120, h: 18 }),
      required: n === 0,
      ...more(kind),
    })),
);

function more(kind: MarkKind): Partial<Mark> {
  if (kind === 'choice') return { group: 'heat' };
  if (kind === 'list') return { options: ['Gas', 'Wood'] };
  if (kind === 'money') return { check: { min: 100 } };
  if (kind === 'text') return { check: { form: 'pattern', pattern: '[A-Z].*' }, lines: 'several' };
  return {};
}

const packet = () => {
  const p = TestPacket.sent({ ...planOf([['wren']]), marks: MARKS });
  p.do({ type: 'open', partyId: 'wren' });
  return p;
};

/** Returns the view a server would give of the packet as it is. */
function viewOf(p: TestPacket): SigningView {
  const state = p.state!;
  const wren = state.parties['wren']!;
  return {
    seq: state.seq,
    me: { id: 'wren', name: 'Wren Alder', side: 'seller', ordinal: 1, act: 'sign', ink: 0, company: '' },
    status: state.status,
    mine: wren.status,
    myTurn: isTurnOf(state, 'wren'),
    agreed: wren.agreedAt !== null,
    hand: wren.hand?.hand ?? null,
    somethingSigned: state.fills.size > 0,
    marks: MARKS.map((m) =>
      ownMark(m.id, {
        ...m,
        documentId: m.documentId,
        label: null,
        help: null,
        value: null,
        check: m.check ?? null,
        options: m.options ?? [],
        group: m.group ?? null,
        redlineId: null,
        several: m.lines === 'several',
        done: state.fills.has(m.id),
        automatic: isAutomatic(m.kind),
      }),
    ),
    fills: shownFills(state),
  } as SigningView;
}

const TEXTS = ['', ' ', 'yes', 'Gas', 'Coal', '12', '1,250.5', '2026-11-23', 'soon', 'wren@example.com', 'Two\nlines'];
const act = fc.oneof(
  fc.record({ type: fc.constant('agree' as const) }),
  fc.record({ type: fc.constant('hand' as const) }),
  {
    weight: 12,
    arbitrary: fc.record({
      type: fc.constant('fill' as const),
      markId: fc.constantFrom(...MARKS.map((m) => m.id)),
      text: fc.option(fc.constantFrom(...TEXTS), { nil: undefined }),
    }),
  },
);

/** Returns the parts of a view that an act may change, in a fixed order. */
const told = (v: SigningView) => ({
  agreed: v.agreed,
  hand: v.hand,
  done: v.marks.filter((m) => m.done).map((m) => m.id),
  shows: Object.fromEntries(v.fills.map((f) => [f.markId, f])),
});

test('whatever a client does, in whatever order, the screen shows what the core makes of it', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
      const p = packet();
      // Agreeing and a hand come before the places, as the screens have it.
      const all = [{ type: 'agree' as const }, { type: 'hand' as const }, ...acts];
      let view = viewOf(p);
      all.forEach((a, i) => {
        const id = `act-${i}`;
        const sent: PendingAct =
          a.type === 'agree'
            ? { id, type: 'agree', agreement: '1' }
            : a.type === 'hand'
              ? { id, type: 'hand', hand: HAND, keep: false }
              : { id, ...a };
        view = showAct(view, sent);
        if (sent.type === 'agree') p.do({ type: 'agree', partyId: 'wren', agreement: '1' });
        else if (sent.type === 'hand') p.do({ type: 'set_hand', partyId: 'wren', hand: HAND });
        else if (sent.type === 'fill')
          p.do({ type: 'fill', partyId: 'wren', markId: sent.markId, text: sent.text, actId: id });
        expect([sent, told(view)]).toEqual([sent, told(viewOf(p))]);
      });
    }),
    { numRuns: 150 },
  );
});
