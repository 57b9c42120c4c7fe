/** The routing core against a model written in another way: who is done, which gate is open, what ended. */
import { holdsGate } from '../packet/acts';
import { isDeepStrictEqual } from 'node:util';
import fc from 'fast-check';
import { mark, party, planOf } from '../test/support';
import { isNeeded, isTurnOf, marksLeft, readsAlong, replay, type PacketCommand } from './index';
import { type Act, type Plan } from '../packet';
import { HAND, TestPacket } from '../test/packet';

const PEOPLE = ['anna', 'bela', 'cora', 'dov', 'ewa'];
const LATER = ['fritz', 'gala'];

/** What must be true, kept as plain sets. It knows nothing of events. */
class Model {
  gate = 0;
  ended: string | null = null;
  readonly done = new Set<string>();
  readonly again = new Set<string>();
  readonly excused = new Set<string>();
  readonly dropped = new Set<string>();
  constructor(public plan: Plan) {
    this.settle();
  }
  private holders(i: number): string[] {
    return this.plan.gates[i]!.partyIds.filter(
      (id) => !this.dropped.has(id) && holdsGate(this.plan.parties.find((p) => p.id === id)!),
    );
  }
  private passed(i: number): boolean {
    const h = this.holders(i);
    if (!h.length) return true;
    return this.plan.gates[i]!.need === 'any' ? h.some((id) => this.done.has(id)) : h.every((id) => this.done.has(id));
  }
  /** Moves on through every gate that nothing holds. */
  private settle(): void {
    while (this.gate < this.plan.gates.length && this.passed(this.gate) && !this.again.size) {
      for (const id of this.holders(this.gate)) if (!this.done.has(id)) this.excused.add(id);
      this.gate++;
    }
    if (this.gate === this.plan.gates.length) this.ended = 'executed';
  }
  mayAct(id: string): boolean {
    const at = this.plan.gates.findIndex((g) => g.partyIds.includes(id));
    if (this.ended || at < 0 || this.done.has(id) || this.excused.has(id) || this.dropped.has(id)) return false;
    return at === this.gate || (at < this.gate && this.again.has(id));
  }
  finish(id: string): void {
    this.done.add(id);
    this.again.delete(id);
    this.settle();
  }
  /** Returns whether somebody may be taken out, or their marks changed: they have done nothing yet. */
  isUntouched(id: string, filled: boolean): boolean {
    const known = this.plan.parties.some((p) => p.id === id);
    return (
      !this.ended &&
      known &&
      !filled &&
      !this.done.has(id) &&
      !this.again.has(id) &&
      !this.excused.has(id) &&
      !this.dropped.has(id)
    );
  }
  othersHold(id: string): boolean {
    return this.plan.parties.some((p) => p.id !== id && !this.dropped.has(p.id) && holdsGate(p));
  }
  drop(id: string): void {
    this.dropped.add(id);
    this.settle();
  }
  /** Applies a change on the page: parties that were done have to confirm again. */
  change(): void {
    for (const id of [...this.done]) {
      this.done.delete(id);
      this.again.add(id);
    }
  }
}

const anyPlan: fc.Arbitrary<Plan> = fc
  .tuple(
    fc.shuffledSubarray(PEOPLE, { minLength: 1 }),
    fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
    fc.array(fc.constantFrom<Act>('sign', 'sign', 'sign', 'approve', 'desk', 'copy'), { minLength: 5, maxLength: 5 }),
    fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
    fc.boolean(),
    fc.option(fc.integer({ min: 2, max: 9 }), { nil: null }),
  )
  .map(([ids, cuts, acts, any, handOver, days]) => {
    const gates: string[][] = [[]];
    ids.forEach((id, i) => {
      if (cuts[i] && gates[gates.length - 1]!.length) gates.push([]);
      gates[gates.length - 1]!.push(id);
    });
    const plan = planOf(gates, Object.fromEntries(ids.map((id, i) => [id, acts[i]!])));
    return {
      ...plan,
      gates: plan.gates.map((g, i) => (any[i] ? { ...g, need: 'any' as const } : g)),
      handOver,
      holidays: ['2026-11-26'],
      schedule: {
        lastDay: days ? `2026-11-${23 + Math.min(days, 7)}` : null,
        warnDays: 1,
        nudge: { first: 1, every: 2, most: 2, businessDays: true },
      },
    };
  });

/** Throws if a condition is false. Cheaper than `expect`, because there are millions of them. */
function must(holds: boolean, what: string): void {
  if (!holds) throw new Error(what);
}
const same = (a: unknown, b: unknown) => isDeepStrictEqual(a, b);

type Step =
  | PacketCommand
  | { type: 'everything'; partyId: string }
  | { type: 'next_day'; days: number }
  | { type: 'reorder'; by: number }
  | { type: 'newcomer'; id: string; act: Act }
  | { type: 'strike'; page: number }
  | { type: 'another_act'; id: string; act: Act }
  | { type: 'other_marks'; id: string; take: boolean; add: boolean };

const who = fc.constantFrom(...PEOPLE, ...LATER);
const say = fc.constantFrom('a reason', ' ', 'something else');
const contact = fc.record({
  name: fc.constantFrom('Ada Holt', 'Bo Vane', ''),
  email: fc.constantFrom('ada@example.com', 'not an address', ''),
  phone: fc.constantFrom(null, '555-0101'),
});
const rare = <T>(arbitrary: fc.Arbitrary<T>) => ({ weight: 1, arbitrary });
const anyStep: fc.Arbitrary<Step> = fc.oneof(
  { weight: 30, arbitrary: who.map((partyId) => ({ type: 'everything' as const, partyId })) },
  { weight: 3, arbitrary: who.map((partyId) => ({ type: 'open' as const, partyId })) },
  { weight: 3, arbitrary: who.map((partyId) => ({ type: 'agree' as const, partyId, agreement: '1' })) },
  { weight: 3, arbitrary: who.map((partyId) => ({ type: 'set_hand' as const, partyId, hand: HAND })) },
  {
    weight: 6,
    arbitrary: fc
      .tuple(who, who, fc.constantFrom('i', 's', 'd'), fc.nat(1e6))
      .map(([partyId, owner, k, n]) => ({ type: 'fill' as const, partyId, markId: `${owner}-${k}`, actId: `a${n}` })),
  },
  {
    weight: 3,
    arbitrary: who.map((partyId) => ({ type: 'finish' as const, partyId, actId: 'f', dateText: 'today' })),
  },
  { weight: 6, arbitrary: fc.integer({ min: 1, max: 3 }).map((days) => ({ type: 'next_day' as const, days })) },
  { weight: 2, arbitrary: fc.nat(5).map((by) => ({ type: 'reorder' as const, by })) },
  {
    weight: 2,
    arbitrary: fc
      .tuple(fc.constantFrom(...LATER), fc.constantFrom<Act>('sign', 'approve', 'copy'))
      .map(([id, act]) => ({ type: 'newcomer' as const, id, act })),
  },
  { weight: 2, arbitrary: fc.nat(9).map((page) => ({ type: 'strike' as const, page })) },
  {
    weight: 3,
    arbitrary: fc.tuple(who, say).map(([partyId, reason]) => ({ type: 'drop_party' as const, partyId, reason })),
  },
  {
    weight: 8,
    arbitrary: fc
      .tuple(who, fc.constantFrom<Act>('sign', 'approve', 'desk', 'copy'))
      .map(([id, act]) => ({ type: 'another_act' as const, id, act })),
  },
  {
    weight: 3,
    arbitrary: fc
      .tuple(who, fc.boolean(), fc.boolean())
      .map(([id, take, add]) => ({ type: 'other_marks' as const, id, take, add })),
  },
  rare(fc.boolean().map((allowed) => ({ type: 'set_reading' as const, allowed }))),
  rare(fc.tuple(who, say).map(([partyId, reason]) => ({ type: 'decline' as const, partyId, reason }))),
  rare(say.map((reason) => ({ type: 'withdraw' as const, reason }))),
  rare(fc.tuple(who, contact).map(([partyId, c]) => ({ type: 'correct_party' as const, partyId, contact: c }))),
  rare(
    fc
      .tuple(who, contact, say)
      .map(([partyId, c, reason]) => ({ type: 'hand_over' as const, partyId, contact: c, reason })),
  ),
  rare(who.map((partyId) => ({ type: 'host' as const, partyId, hostName: 'Odile' }))),
  rare(who.map((partyId) => ({ type: 'lock' as const, partyId }))),
  { weight: 2, arbitrary: who.map((partyId) => ({ type: 'unlock' as const, partyId })) },
  rare(who.map((partyId) => ({ type: 'renew_link' as const, partyId }))),
  rare(who.map((partyId) => ({ type: 'bounce' as const, partyId, channel: 'email' as const, why: 'no such mailbox' }))),
  rare(
    fc
      .tuple(who, fc.nat(3), say)
      .map(([partyId, n, text]) => ({ type: 'ask_question' as const, partyId, questionId: `q${n}`, text })),
  ),
  rare(fc.tuple(fc.nat(3), say).map(([n, text]) => ({ type: 'answer' as const, questionId: `q${n}`, text }))),
  rare(fc.constant({ type: 'nudge' as const })),
  rare(fc.nat(12).map((d) => ({ type: 'extend' as const, lastDay: `2026-12-${10 + d}`, today: '2026-12-01' }))),
  rare(fc.nat(40).map((forSeq) => ({ type: 'revise' as const, forSeq, documents: [] }))),
  rare(fc.constant<Step>({ type: 'seal', documents: [] })),
);

/** Returns what a step is as a command in the packet as it stands; null for steps that are not one command. */
function commandOf(p: TestPacket, step: Step, n: number): PacketCommand | null {
  const { plan, gate, parties } = p.state!;
  switch (step.type) {
    case 'reorder': {
      const ahead = plan.gates.slice(gate + 1);
      const turned = [...ahead.slice(step.by), ...ahead.slice(0, step.by)];
      return { type: 'set_path', gates: [...plan.gates.slice(0, gate + 1), ...turned] };
    }
    case 'newcomer': {
      const marks = step.act === 'sign' ? [mark(`${step.id}-s`, step.id, 'signature')] : [];
      const gates = step.act === 'copy' ? plan.gates : [...plan.gates, { id: `new${n}`, partyIds: [step.id] }];
      return { type: 'add_party', party: party(step.id, { act: step.act }), gates, marks };
    }
    case 'strike': {
      const id = `r${n}`;
      const redline = {
        id,
        documentId: 'doc',
        page: 1,
        kind: 'strike' as const,
        rects: [],
        text: 'words',
        moved: [],
      };
      const signers = plan.parties.filter(
        (x) => (x.act === 'sign' || x.act === 'desk') && isNeeded(parties[x.id]!.status),
      );
      const marks = signers.map((x) => ({ ...mark(`${id}.${x.id}`, x.id, 'initials'), redlineId: id }));
      return { type: 'correct', redline, marks };
    }
    case 'another_act': {
      const had = plan.marks.some((m) => m.partyId === step.id);
      const marks =
        step.act === 'copy' || step.act === 'approve' || had ? [] : [mark(`${step.id}-${n}`, step.id, 'signature')];
      const stands = plan.gates.some((g) => g.partyIds.includes(step.id));
      const gates =
        stands || step.act === 'copy' ? plan.gates : [...plan.gates, { id: `new${n}`, partyIds: [step.id] }];
      return { type: 'change_act', partyId: step.id, act: step.act, gates, marks };
    }
    case 'other_marks': {
      const mine = plan.marks.filter((m) => m.partyId === step.id && !m.redlineId);
      const at = { x: 450, y: 10 + (n % 50) * 15, w: 60, h: 12 };
      const put = step.add ? [mark(`${step.id}-n${n}`, step.id, 'initials', 1, at)] : [];
      return { type: 'change_marks', partyId: step.id, put, drop: step.take ? mine.slice(0, 1).map((m) => m.id) : [] };
    }
    case 'everything':
    case 'next_day':
      return null;
    default:
      return step;
  }
}

test('thousands of random sequences: the core and the model never disagree', () => {
  const ends = new Map<string, number>();
  let changes = 0;
  let droppedInAll = 0;
  let otherMarks = 0;
  let otherActs = 0;
  fc.assert(
    fc.property(anyPlan, fc.array(anyStep, { minLength: 5, maxLength: 60 }), (plan, steps) => {
      const p = new TestPacket();
      if (p.do({ type: 'send', plan }) !== 'ok') return;
      const model = new Model(plan);
      steps.forEach((step, n) => {
        const before = p.state!;
        const length = p.events.length;
        if (step.type === 'next_day') {
          p.day += step.days;
          p.do({ type: 'tick', today: p.today, working: true });
          if (p.state!.status === 'lapsed' && before.status === 'at_gate') {
            // Never on the last day itself.
            must(p.today > before.plan.schedule!.lastDay!, 'lapsed on its last day');
            model.ended = 'lapsed';
          }
          for (const e of p.events.slice(length))
            if (e.body.type === 'nudged') must(isTurnOf(before, e.body.partyId), 'nudged out of turn');
        } else if (step.type === 'everything') {
          const may =
            model.mayAct(step.partyId) && before.plan.parties.find((x) => x.id === step.partyId)!.act !== 'copy';
          const ok = p.signAll(step.partyId) === 'ok';
          must(ok === (may && !before.parties[step.partyId]!.locked), `${step.partyId} may ${may ? '' : 'not '}act`);
          if (ok) model.finish(step.partyId);
        } else {
          const command = commandOf(p, step, n)!;
          const acted = 'partyId' in command && model.mayAct(command.partyId);
          const filled = [...before.fills.values()].some((f) => 'partyId' in command && f.partyId === command.partyId);
          const untouched = 'partyId' in command && model.isUntouched(command.partyId, filled);
          const result = p.do(command);
          if (command.type === 'drop_party' && command.reason.trim() && !model.dropped.has(command.partyId))
            must(
              (result === 'ok') === (untouched && model.othersHold(command.partyId)),
              `${command.partyId} taken out: ${result}`,
            );
          if (command.type === 'change_marks' && result === 'ok' && p.events.length > length) {
            must(untouched, 'marks of somebody who has acted were changed');
            otherMarks++;
          }
          if (command.type === 'change_act' && result === 'ok' && p.events.length > length) {
            must(
              untouched && !before.parties[command.partyId]!.askedAt,
              'the act of somebody who was asked was changed',
            );
            otherActs++;
          }
          if (result !== 'ok') {
            must(p.state === before, 'a refused command changed something');
          } else if (command.type === 'finish') model.finish(command.partyId);
          else if (command.type === 'decline') model.ended = 'declined';
          else if (command.type === 'withdraw') model.ended = 'withdrawn';
          else if (command.type === 'extend') model.ended = null;
          else if (command.type === 'drop_party' && p.events.length > length) {
            model.drop(command.partyId);
            droppedInAll++;
          } else if (command.type === 'correct') {
            model.change();
            changes++;
          }
          const acts = ['agree', 'set_hand', 'fill', 'finish', 'decline', 'hand_over', 'prove'];
          if (result === 'ok' && p.events.length > length && 'partyId' in command && acts.includes(command.type))
            must(acted, `${command.type} out of turn`);
          model.plan = p.state!.plan;
        }
        const after = p.state!;
        // Gates and ends are as the model has them, and nothing leaves an ended packet.
        must(after.status === (model.ended ?? 'at_gate'), `${after.status}, not ${model.ended ?? 'at_gate'}`);
        if (after.status === 'at_gate') must(after.gate === model.gate, `at gate ${after.gate}, not ${model.gate}`);
        if (['executed', 'declined', 'withdrawn'].includes(before.status)) {
          must(after.status === before.status, 'something left an ended packet');
          must(same(after.fills, before.fills) && same(after.plan, before.plan), 'an ended packet changed');
        }
        for (const x of after.plan.parties) {
          if (holdsGate(x)) must((after.parties[x.id]!.status === 'done') === model.done.has(x.id), `${x.id} done?`);
          if (after.parties[x.id]!.status === 'done') must(!marksLeft(after, x.id).length, `${x.id} has marks left`);
          // Nobody is asked before the gate is reached.
          const at = after.plan.gates.findIndex((g) => g.partyIds.includes(x.id));
          if (at > after.gate) must(!after.parties[x.id]!.askedAt, `${x.id} was asked early`);
          if (model.dropped.has(x.id)) {
            must(after.parties[x.id]!.status === 'dropped', `${x.id} came back`);
            must(!after.plan.marks.some((m) => m.partyId === x.id), `${x.id} left marks behind`);
          }
          // Reading along is of those who are to act, and were not asked yet.
          if (readsAlong(after, x.id)) must(at > after.gate && !model.dropped.has(x.id), `${x.id} reads along`);
          if (!model.ended && holdsGate(x)) must(isTurnOf(after, x.id) === model.mayAct(x.id), `turn of ${x.id}`);
        }
        for (const [markId, fill] of after.fills)
          must(after.plan.marks.find((m) => m.id === markId)!.partyId === fill.partyId, `${markId} filled by another`);
        // No accepted event is lost: what was done stays in the log as it was.
        must(p.events.length >= length, 'an event was lost');
      });
      expect(replay(p.events)).toEqual(p.state);
      ends.set(p.state!.status, (ends.get(p.state!.status) ?? 0) + 1);
    }),
    { numRuns: 4000 },
  );
  // The runs reach every end and many changes under way, or they would prove little.
  for (const end of ['at_gate', 'executed', 'declined', 'withdrawn', 'lapsed'])
    expect([end, (ends.get(end) ?? 0) > 20]).toEqual([end, true]);
  expect(changes).toBeGreaterThan(300);
  expect(Math.min(droppedInAll, otherMarks, otherActs)).toBeGreaterThan(120);
});
