/** Every route of the contract, called by everybody who may not: made from the contract, so that none is forgotten. */
import Fastify from 'fastify';
import type { PathValues, RouteName } from '@gatepath/contract';
import { allRoutes, codeOf, isFile, isOther, type ProblemCode, type Route, type Who } from '@gatepath/contract/routes';
import { serve } from './http/routing';
import { hashSecret, newId } from './ids';
import { insertLink } from './links/queries';
import { tokenIn, Way } from './test/way';

jest.setTimeout(240_000);

/** Somebody who comes: with a session or without, and with what they take for a signing link. */
interface Visitor {
  session?: string;
  token?: string;
}
type Name =
  | 'a stranger'
  | 'a forged session'
  | 'an ended session'
  | 'a link in place of a session'
  | 'a member without a link'
  | 'a session in place of a link'
  | 'a replaced link'
  | 'a withdrawn packet'
  | 'a gate too early';

/** What those who may not call a route are told. A new kind of route does not compile, and does not pass, without its own. */
const TOLD: Record<Who, Partial<Record<Name, ProblemCode>>> = {
  anybody: {},
  member: {
    'a stranger': 'sign-in',
    'a forged session': 'sign-in',
    'an ended session': 'sign-in',
    'a link in place of a session': 'sign-in',
  },
  link: {
    'a stranger': 'dead-link',
    'a forged session': 'dead-link',
    'an ended session': 'dead-link',
    'a member without a link': 'dead-link',
    'a session in place of a link': 'dead-link',
    'a replaced link': 'dead-link',
    'a withdrawn packet': 'withdrawn',
    'a gate too early': 'not-your-turn',
  },
};

let way: Way;
let params: Partial<PathValues>;
let good: string;
const visitors = {} as Record<Name, Visitor>;

beforeAll(async () => {
  way = await Way.start();
  const { server } = way;
  const two = [
    { name: 'Wren Alder', email: 'wren@example.com' },
    { name: 'Tobias Mercer', email: 't@example.com' },
  ];
  const sent = await way.send(two, [{ names: ['Wren'] }, { names: ['Tobias'] }]);
  const { packet } = sent;
  const wren = packet.sent!.plan.parties[0]!;
  const first = await way.newest(packet.id, 'Wren Alder', 'ask');
  await way.change(packet.id, { type: 'renew_link', partyId: wren.id });
  good = tokenIn(await way.newest(packet.id, 'Wren Alder', 'new_link'));
  const gone = await way.send(two, [{ names: ['Wren'] }, { names: ['Tobias'] }]);
  const withdrawn = tokenIn(await way.newest(gone.packet.id, 'Wren Alder', 'ask'));
  await server.ok('withdrawPacket', { params: { packetId: gone.packet.id }, body: { reason: 'Sold' } });
  // A signing link made behind the server's back stands for a leak: the gate still says no.
  const early = 'leaked-before-its-time';
  await insertLink(server.ctx.database.pool, {
    id: newId(),
    packet_id: packet.id,
    party_id: packet.sent!.plan.parties[1]!.id,
    host_id: null,
    token_hash: hashSecret(early, server.ctx.config.sessionSecret),
    at: new Date(),
  });
  const signIn = await server.call('signIn', {
    body: { email: 'odile@example.com', password: 'long enough 1' },
    as: 'nobody',
  });
  const ended = signIn.cookie!;
  await as('signOut', { session: ended });
  Object.assign(visitors, {
    'a stranger': {},
    'a forged session': { session: 'x'.repeat(43) },
    'an ended session': { session: ended },
    'a link in place of a session': { session: good },
    'a member without a link': { session: server.cookie },
    'a session in place of a link': { token: server.cookie },
    'a replaced link': { token: tokenIn(first) },
    'a withdrawn packet': { token: withdrawn },
    'a gate too early': { token: early },
  } satisfies Record<Name, Visitor>);
  params = {
    dealId: sent.deal.id,
    packetId: packet.id,
    documentId: packet.sent!.plan.documents[0]!.id,
    beforeId: 'none',
    partyId: wren.id,
    ruleId: 'sample-sale-lead_paint',
    personId: wren.id,
    messageId: first.id,
    markId: packet.sent!.plan.marks[0]!.id,
    sha256: '0'.repeat(64),
    language: 'en',
    viewId: 'none',
    textId: 'none',
    shelfId: 'none',
    noticeId: 'none',
    incomingId: 'none',
    memberId: 'none',
    invitationId: 'none',
    sessionId: 'none',
    rowId: 'none',
    list: 'deals',
    tableKind: 'people',
    page: 1,
  };
});
afterAll(() => way.server.stop());

/** Calls a route as somebody, with a body that says nothing. */
function as(name: RouteName, { session, token = 'no-such-link' }: Visitor) {
  const route = allRoutes.find(([n]) => n === name)![1];
  return way.server.call(name, {
    params: { ...params, token },
    as: 'nobody',
    ...(route.method === 'GET' || isFile(route.body) ? {} : { body: {} }),
    headers: session ? { cookie: `gatepath_session=${session}` } : {},
  });
}

test('every route says who may call it', () => {
  for (const [name, route] of allRoutes) expect([name, Object.keys(TOLD).includes(route.who)]).toEqual([name, true]);
});

test.each(allRoutes.map(([name, route]) => [name, route.who, route] as const))(
  '%s is for %s alone',
  async (name, _who, route: Route) => {
    for (const [visitor, code] of Object.entries(TOLD[route.who]) as [Name, ProblemCode][]) {
      const answer = await as(name, visitors[visitor]);
      expect([visitor, answer.status >= 400 && codeOf(answer.problem.type)]).toEqual([visitor, code]);
    }
  },
);

/** Returns whether a route answers with a stream, which stays open. */
const isStream = (route: Route) => isOther(route.answer) && route.answer.kind === 'events';

test('before the code of a second step, a signing link opens nothing but the way to it', async () => {
  const { packet } = await way.send(
    [{ name: 'Priya Nair', email: 'priya@example.com', more: { secondStep: 'email' } }],
    [{ names: ['Priya'] }],
  );
  const token = tokenIn(await way.newest(packet.id, 'Priya Nair', 'ask'));
  const open: string[] = [];
  for (const [name, route] of allRoutes) {
    if (route.who !== 'link' || isStream(route)) continue;
    const answer = await as(name, { token });
    if (answer.status < 400 || codeOf(answer.problem.type) !== 'step-wanted') open.push(name);
  }
  expect(open.sort()).toEqual(['giveCode', 'sendCode', 'setLanguage', 'signing']);
  const { me, documents, marks, fills } = await way.server.ok('signing', { params: { token }, as: 'nobody' });
  expect([me.name, documents, marks, fills]).toEqual(['Priya Nair', [], [], []]);
});

test('nothing of that came of how they were asked: those who may are let in', async () => {
  for (const [name, route] of allRoutes) {
    // Streams stay open.
    if (route.method !== 'GET' || isStream(route)) continue;
    const answer = await as(name, route.who === 'link' ? { token: good } : { session: way.server.cookie });
    const code = answer.status < 400 ? null : codeOf(answer.problem.type);
    expect([name, Object.values(TOLD[route.who]).includes(code!)]).toEqual([name, false]);
  }
});

test('a route that is put where others are let in stops the start', () => {
  const area = Fastify();
  area.decorate('letsIn', 'anybody');
  expect(() => serve(area, 'sealedCopy', () => null as never)).toThrow('sealedCopy is for member');
});
