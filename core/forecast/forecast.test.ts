/** Forecasts on simulated firms, whose people take their time in a way that the forecast is not told. */
import type { Act, PacketParty, Plan } from '../packet/types';
import { dayOf } from '../calendar';
import { TestPacket } from '../test/packet';
import { replay, type PacketEvent, type PacketEventBody, type PacketState } from '../routing';
import { mark, party, planOf } from '../test/support';
import type { Side } from '../text/sides';
import { chanceWithin, doingBetween, forecastOf, paceOf, studentCdf, type Wait } from './index';

const ZONE = 'UTC';
const DAY = 86_400_000;
const MONDAY = Date.parse('2026-03-02T09:00:00Z');

/** Numbers from 0 to 1, the same in every run. */
function numbers(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const normal = (next: () => number) => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());

const SIDES: Side[] = ['seller', 'buyer', 'listing_broker', 'tenant'];
const ACTS: Act[] = ['sign', 'sign', 'sign', 'approve', 'desk'];

class Firm {
  private readonly middle: number;
  private readonly spread: number;
  private readonly week: number[];
  private readonly bySide = new Map<string, number>();
  constructor(private readonly next: () => number) {
    this.middle = Math.log(1.3) + 0.6 * normal(next);
    this.spread = 0.7 + 0.6 * next();
    const rest = 0.15 + 0.85 * next();
    this.week = [1, 1, 1, 1, 1, rest, rest * next()];
    for (const s of SIDES) for (const a of ACTS) this.bySide.set(s + a, 0.35 * normal(next));
  }
  plan(): Plan {
    const ids = ['anna', 'bela', 'cora', 'dov', 'ewa'].slice(0, 1 + Math.floor(this.next() * 5));
    const gates: string[][] = [];
    for (const id of ids) {
      if (!gates.length || this.next() < 0.6) gates.push([id]);
      else gates.at(-1)!.push(id);
    }
    const pick = <T>(all: T[]) => all[Math.floor(this.next() * all.length)]!;
    const plan = planOf(gates, Object.fromEntries(ids.map((id) => [id, pick(ACTS)])));
    const any = this.next() < 0.15;
    return {
      ...plan,
      timeZone: ZONE,
      parties: plan.parties.map((p) => ({ ...p, side: pick(SIDES) })),
      gates: plan.gates.map((g) => (any && g.partyIds.length > 1 ? { ...g, need: 'any' as const } : g)),
    };
  }
  /** Returns when a person is done who was asked at an instant; people do more on some days than on others. */
  done(p: PacketParty, asked: number): number {
    let left = Math.exp(this.middle + this.bySide.get(p.side + p.act)! + this.spread * normal(this.next));
    for (let at = asked; ;) {
      const weight = this.week[(new Date(at).getUTCDay() + 6) % 7]!;
      const rest = (Math.floor(at / DAY) + 1) * DAY - at;
      const doing = (weight * rest) / DAY;
      if (left <= doing) return at + (left / weight) * DAY;
      left -= doing;
      at += rest;
    }
  }
  /** Returns what happened to a packet sent at an instant: its events in order, and when it was executed. */
  run(plan: Plan, sent: number): { waits: (Wait & { id: string; gate: number })[]; opened: number[]; end: number } {
    let at = sent;
    const waits: (Wait & { id: string; gate: number })[] = [];
    const opened: number[] = [];
    plan.gates.forEach((g, gate) => {
      opened.push(at);
      const times = g.partyIds.map((id) => {
        const p = plan.parties.find((x) => x.id === id)!;
        return { p, at: this.done(p, at) };
      });
      const end = g.need === 'any' ? Math.min(...times.map((t) => t.at)) : Math.max(...times.map((t) => t.at));
      for (const { p, at: done } of times)
        if (done <= end)
          waits.push({
            id: p.id,
            gate,
            side: p.side,
            act: p.act,
            askedAt: new Date(at).toISOString(),
            doneAt: new Date(done).toISOString(),
          });
      at = end;
    });
    return { waits, opened, end: at };
  }
}

/** Returns the state of a packet at an instant of its run. */
function stateAt(plan: Plan, sent: number, run: ReturnType<Firm['run']>, now: number): PacketState {
  const bodies: { at: number; body: PacketEventBody }[] = [{ at: sent, body: { type: 'sent', plan } }];
  run.opened.forEach((at, gate) => {
    if (at > now) return;
    if (gate) bodies.push({ at, body: { type: 'gate_passed', gate: gate - 1 } });
    bodies.push({ at, body: { type: 'gate_opened', gate } });
    for (const id of plan.gates[gate]!.partyIds) bodies.push({ at, body: { type: 'asked', partyId: id } });
  });
  for (const w of run.waits) {
    const at = Date.parse(w.doneAt);
    if (at <= now) bodies.push({ at: at - 1, body: { type: 'party_done', partyId: w.id, actId: w.id } });
  }
  const events = bodies
    .sort((a, b) => a.at - b.at)
    .map(({ at, body }, i): PacketEvent => ({
      packetId: 'p',
      seq: i + 1,
      at: new Date(at).toISOString(),
      actor: { kind: 'system' },
      origin: null,
      body,
    }));
  return replay(events)!;
}

/** Returns how often a packet was executed by the forecast days for 50% and for 90%. */
function held(past: number, firms: number, seed: number, along: boolean) {
  const next = numbers(seed);
  let likely = 0;
  let slow = 0;
  let told = 0;
  for (let i = 0; i < firms; i++) {
    const firm = new Firm(next);
    const waits: Wait[] = [];
    for (let k = 0; k < past; k++) waits.push(...firm.run(firm.plan(), MONDAY + k * 1.7 * DAY).waits);
    const plan = firm.plan();
    const sent = MONDAY + 400 * DAY + Math.floor(next() * 7) * DAY + next() * 0.4 * DAY;
    const run = firm.run(plan, sent);
    const now = along ? sent + 4 * DAY * next() : sent;
    if (run.end <= now) continue;
    const f = forecastOf(stateAt(plan, sent, run, now), paceOf(waits, ZONE), new Date(now).toISOString());
    if (!f) continue;
    const end = dayOf(new Date(run.end).toISOString(), ZONE);
    told++;
    if (end <= f.likely) likely++;
    if (end <= f.slow) slow++;
  }
  return { likely: (100 * likely) / told, slow: (100 * slow) / told };
}

test.each([
  ['no past at all', 0, 400],
  ['ten past packets', 10, 600],
  ['a hundred past packets', 100, 250],
])('nine in ten are executed by the day told for nine in ten: a firm with %s', (_name, past, firms) => {
  const { likely, slow } = held(past, firms, 7 + past, false);
  expect([slow >= 85 && slow <= 95, slow]).toEqual([true, slow]);
  expect([likely >= 38 && likely <= 65, likely]).toEqual([true, likely]);
});

test('also somewhere along its way, when some are done and others have been asked for a while', () => {
  const { slow } = held(10, 400, 99, true);
  expect([slow >= 85 && slow <= 95, slow]).toEqual([true, slow]);
});

test('Student’s distribution is what the tables say', () => {
  for (const [t, freedom, chance] of [
    [0, 5, 0.5],
    [1.476, 5, 0.9],
    [2.015, 5, 0.95],
    [-2.015, 5, 0.05],
    [1.812, 10, 0.95],
    [12.706, 1, 0.975],
    [1.96, 100_000, 0.975],
  ] as const)
    expect(studentCdf(t, freedom)).toBeCloseTo(chance, 3);
});

test('what is done on weekends counts as little as it is', () => {
  const week = [1.4, 1.4, 1.4, 1.4, 1.4, 0, 0];
  // From Friday noon to Monday noon.
  expect(doingBetween(week, '2026-03-06T12:00:00Z', '2026-03-09T12:00:00Z', ZONE)).toBeCloseTo(1.4);
  expect(doingBetween(week, '2026-03-02T12:00:00Z', '2026-03-16T12:00:00Z', ZONE)).toBeCloseTo(14);
  // A clock that is set forward in between does not make a day more or less.
  const usual = [1, 1, 1, 1, 1, 1, 1];
  expect(doingBetween(usual, '2026-03-07T17:00:00Z', '2026-03-09T16:00:00Z', 'America/New_York')).toBeCloseTo(2, 1);
});

/** Returns a wait of so many hours for somebody of a side to sign. */
const wait = (side: Side, hours: number): Wait => ({
  side,
  act: 'sign',
  askedAt: '2026-03-02T09:00:00Z',
  doneAt: new Date(Date.parse('2026-03-02T09:00:00Z') + hours * 3_600_000).toISOString(),
});

test('who was quick before is believed to be quick; a group with little past leans on the others', () => {
  const quick = paceOf(
    Array.from({ length: 40 }, () => wait('seller', 3)).concat(Array.from({ length: 2 }, () => wait('buyer', 90))),
    ZONE,
  );
  const within = (side: Side) => chanceWithin(quick, { side, act: 'sign' }, 1);
  expect(within('seller')).toBeGreaterThan(0.9);
  expect(within('buyer')).toBeLessThan(within('tenant'));
  expect(within('tenant')).toBeGreaterThan(0.5);
});

test('a group with little past is believed less than the firm with much', () => {
  const many = (n: number, side: Side, hours: number) => Array.from({ length: n }, () => wait(side, hours));
  // Two hundred quick sellers say little of buyers, twelve of whom took four days.
  const pace = paceOf([...many(200, 'seller', 3), ...many(12, 'buyer', 96)], ZONE);
  expect(chanceWithin(pace, { side: 'seller', act: 'sign' }, 1)).toBeGreaterThan(0.9);
  expect(chanceWithin(pace, { side: 'buyer', act: 'sign' }, 1)).toBeLessThan(0.25);
});

test('while somebody is asked again a gate passes no sooner because any one at it is enough', () => {
  const at = new Date(MONDAY).toISOString();
  const forecast = (need: 'any' | undefined, again: boolean) => {
    const plan = planOf([['anna'], ['bela', 'cora']]);
    const p = TestPacket.sent({
      ...plan,
      timeZone: ZONE,
      gates: plan.gates.map((g, i) => (i && need ? { ...g, need } : g)),
    });
    p.signAll('anna');
    if (again) {
      p.do({ type: 'revise', forSeq: p.state!.due[0]!.seq, documents: [] });
      const redline = { id: 'r', documentId: 'doc', page: 1, kind: 'strike' as const, rects: [], text: 'x', moved: [] };
      const initials = ['anna', 'bela', 'cora'].map((id) => ({ ...mark(`r.${id}`, id, 'initials'), redlineId: 'r' }));
      expect(p.do({ type: 'correct', redline, marks: initials })).toBe('ok');
    }
    return forecastOf(p.state!, paceOf([], ZONE), at)!;
  };
  expect(forecast('any', true)).toEqual(forecast(undefined, true));
  // The control: with nobody asked again it does.
  expect(forecast('any', false).slow < forecast(undefined, false).slow).toBe(true);
});

test('it moves as the packet does, and says nothing of one that has ended', () => {
  const plan: Plan = { ...planOf([['anna'], ['bela']]), timeZone: ZONE, parties: [party('anna'), party('bela')] };
  const sent = MONDAY;
  const run = { waits: [], opened: [sent], end: 0 };
  const fresh = forecastOf(stateAt(plan, sent, run, sent), paceOf([], ZONE), new Date(sent).toISOString())!;
  const later = sent + 6 * DAY;
  const stuck = forecastOf(stateAt(plan, sent, run, sent), paceOf([], ZONE), new Date(later).toISOString())!;
  expect(stuck.likely > fresh.likely && stuck.slow > fresh.slow).toBe(true);
  expect(fresh.likely <= fresh.slow).toBe(true);
  const state = { ...stateAt(plan, sent, run, sent), status: 'withdrawn' as const };
  expect(forecastOf(state, paceOf([], ZONE), new Date(sent).toISOString())).toBeNull();
});
