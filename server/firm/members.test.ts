/** A second member: invited, at work, forgetful, and gone, with everything handed over. */
import type { SessionView } from '@gatepath/contract';
import { TestServer } from '../test/harness';
import { Way } from '../test/way';

jest.setTimeout(120_000);

let way: Way;
let server: TestServer;
beforeAll(async () => {
  way = await Way.start();
  server = way.server;
});
afterAll(() => way.stop());

const PASSWORD = 'a long password';

/** Returns the link in the newest message of a kind to somebody. */
async function linkTo(email: string, kind: string): Promise<string> {
  const { items } = await server.ok('mailroom', { query: { limit: '100' } });
  const found = items.find((m) => m.toEmail === email && m.kind === kind);
  return found!.link!.split('/').pop()!;
}

async function invited(name: string, email: string, role: 'owner' | 'member' = 'member'): Promise<string> {
  await server.ok('invite', { body: { name, email, role } });
  return linkTo(email, 'invitation');
}

/** Does something as somebody else than the first member. */
async function as<T>(cookie: string, work: () => Promise<T>): Promise<T> {
  const before = server.cookie;
  server.cookie = cookie;
  try {
    return await work();
  } finally {
    server.cookie = before;
  }
}

async function joined(name: string, email: string, role: 'owner' | 'member' = 'member') {
  const token = await invited(name, email, role);
  const answer = await server.call('join', { params: { token }, body: { name, password: PASSWORD }, as: 'nobody' });
  expect(answer.status).toBe(200);
  return { id: (answer.body as SessionView).member!.id, cookie: answer.cookie! };
}

const signIn = (email: string, password: string) => server.call('signIn', { body: { email, password }, as: 'nobody' });

test('an invitation makes a member once, and nobody after it was taken, withdrawn, replaced or three days old', async () => {
  const token = await invited('Ines Marsh', 'ines@example.com');
  const params = { token };
  expect(await server.ok('invitation', { params, as: 'nobody' })).toEqual({
    firm: 'Towpath & Vane Realty',
    name: 'Ines Marsh',
    email: 'ines@example.com',
  });
  const join = () => server.call('join', { params, body: { name: 'Ines Marsh', password: PASSWORD }, as: 'nobody' });
  const answers = await Promise.all([join(), join(), join()]);
  expect(answers.map((a) => a.status).sort()).toEqual([200, 404, 404]);
  expect((await join()).status).toBe(404);
  expect((await signIn('ines@example.com', PASSWORD)).status).toBe(200);
  const again = await server.call('invite', { body: { name: 'Ines', email: 'INES@example.com', role: 'member' } });
  expect([again.status, again.problem.type]).toEqual([409, '/problems/member-exists']);

  const first = await invited('Bo Li', 'bo@example.com');
  const second = await invited('Bo Li', 'bo@example.com');
  const opens = async (t: string) => (await server.call('invitation', { params: { token: t }, as: 'nobody' })).status;
  expect([await opens(first), await opens(second)]).toEqual([404, 200]);
  const { invitations } = await server.ok('firm');
  await server.ok('withdrawInvitation', { params: { invitationId: invitations[0]!.id } });
  expect(await opens(second)).toBe(404);
  const third = await invited('Bo Li', 'bo@example.com');
  server.ctx.clock.forward(3 * 86_400_000 + 1_000);
  expect(await opens(third)).toBe(404);
});

test('members who are no owners neither invite nor disable, and see nobody’s invitations and new passwords', async () => {
  const { cookie, id } = await joined('Cy Day', 'cy@example.com');
  await invited('Dee Fox', 'dee@example.com');
  await server.call('forgotPassword', { body: { email: 'ines@example.com' }, as: 'nobody' });
  await as(cookie, async () => {
    for (const answer of [
      await server.call('invite', { body: { name: 'X', email: 'x@example.com', role: 'owner' } }),
      await server.call('disableMember', { params: { memberId: id }, body: { toId: id } }),
      await server.call('enableMember', { params: { memberId: id } }),
      await server.call('withdrawInvitation', { params: { invitationId: 'any' } }),
    ])
      expect([answer.status, answer.problem.type]).toEqual([403, '/problems/not-owner']);
    expect((await server.ok('firm')).invitations).toEqual([]);
    const { items } = await server.ok('mailroom', { query: { limit: '100' } });
    const secret = items.filter((m) => m.kind === 'invitation' || m.kind === 'new_password');
    expect(secret.length).toBeGreaterThan(1);
    for (const m of secret) {
      const own = m.toEmail === 'cy@example.com';
      expect([m.toEmail, m.link !== null]).toEqual([m.toEmail, own]);
      const params = { messageId: m.id };
      expect((await server.call('message', { params })).status).toBe(own ? 200 : 404);
      expect((await server.call('messageFile', { params })).status).toBe(own ? 200 : 404);
    }
  });
});

test('a forgotten password is chosen anew once, within the hour, and ends all sessions', async () => {
  const { cookie } = await joined('Eva Poe', 'eva@example.com');
  // What is answered does not tell whose address it is.
  const [known, unknown] = [
    await server.call('forgotPassword', { body: { email: 'Eva@example.com' }, as: 'nobody' }),
    await server.call('forgotPassword', { body: { email: 'stranger@example.com' }, as: 'nobody' }),
  ];
  expect([known.status, { ...(known.body as SessionView), now: '' }]).toEqual([
    unknown.status,
    { ...(unknown.body as SessionView), now: '' },
  ]);
  const token = await linkTo('eva@example.com', 'new_password');
  const reset = (password: string) =>
    server.call('resetPassword', { params: { token }, body: { password }, as: 'nobody' });
  expect((await reset('short')).status).toBe(422);
  expect((await reset('another password')).status).toBe(200);
  expect((await reset('a third password')).status).toBe(404);
  expect((await as(cookie, () => server.call('firm'))).status).toBe(401);
  expect((await signIn('eva@example.com', PASSWORD)).status).toBe(401);
  expect((await signIn('eva@example.com', 'another password')).status).toBe(200);
  await server.call('forgotPassword', { body: { email: 'eva@example.com' }, as: 'nobody' });
  const late = await linkTo('eva@example.com', 'new_password');
  server.ctx.clock.forward(3_600_000 + 1_000);
  const params = { token: late };
  expect((await server.call('resetPassword', { params, body: { password: PASSWORD }, as: 'nobody' })).status).toBe(404);
  // One address is not written to without end.
  const count = async () =>
    (await server.ok('mailroom', { query: { limit: '100' } })).items.filter(
      (m) => m.toEmail === 'eva@example.com' && m.kind === 'new_password',
    ).length;
  const before = await count();
  for (let n = 0; n < 8; n++) await server.call('forgotPassword', { body: { email: 'eva@example.com' }, as: 'nobody' });
  expect((await count()) - before).toBe(3);
});

test('a password is changed by who knows it; other sessions end, this one stays; sessions end one by one', async () => {
  const { cookie } = await joined('Fay Gale', 'fay@example.com');
  const other = (await signIn('fay@example.com', PASSWORD)).cookie!;
  await as(cookie, async () => {
    const wrong = await server.call('changePassword', { body: { current: 'not it', password: 'a new password' } });
    expect([wrong.status, wrong.problem.type]).toEqual([401, '/problems/wrong-password']);
    expect((await server.ok('sessions')).sessions.map((s) => s.current).sort()).toEqual([false, true]);
    const { sessions } = await server.ok('changePassword', { body: { current: PASSWORD, password: 'a new password' } });
    expect(sessions.map((s) => s.current)).toEqual([true]);
  });
  expect((await as(other, () => server.call('firm'))).status).toBe(401);
  const third = (await signIn('fay@example.com', 'a new password')).cookie!;
  await as(cookie, async () => {
    const { sessions } = await server.ok('sessions');
    const stranger = await as(third, () => server.ok('sessions'));
    const ended = sessions.find((s) => !s.current)!;
    expect(stranger.sessions.find((s) => s.current)!.id).toBe(ended.id);
    await server.ok('endSession', { params: { sessionId: ended.id } });
    // Nobody ends the session of somebody else.
    expect((await server.call('endSession', { params: { sessionId: 'another' } })).status).toBe(404);
  });
  expect((await as(third, () => server.call('firm'))).status).toBe(401);
});

test('who leaves is out at once, and what was theirs goes on under somebody else', async () => {
  const leaving = await joined('Gil Hart', 'gil@example.com');
  const odile = (await server.ok('session')).member!;
  const feed = await as(leaving.cookie, () => server.ok('renewOwnFeed'));
  const calendar = async () => (await server.running.app.inject({ url: new URL(feed.url!).pathname })).statusCode;
  const { packet, deal, draft } = await as(leaving.cookie, async () => {
    const sent = await way.send(
      [{ name: 'Wren Alder' }, { name: 'Tobias Mercer' }],
      [{ names: ['Wren'] }, { names: ['Tobias'] }],
    );
    await server.ok('setDeal', { params: { dealId: sent.deal.id }, body: { memberIds: [leaving.id] } });
    const kept = await server.ok('newPacket', { params: { dealId: sent.deal.id }, body: { name: 'Later' } });
    return { ...sent, draft: kept };
  });
  expect(await calendar()).toBe(200);
  const firm = await server.ok('disableMember', { params: { memberId: leaving.id }, body: { toId: odile.id } });
  expect(firm.members.find((m) => m.id === leaving.id)).toMatchObject({
    disabledAt: expect.any(String),
    handedTo: 'Odile Farrant',
  });
  expect((await as(leaving.cookie, () => server.call('firm'))).status).toBe(401);
  expect((await signIn('gil@example.com', PASSWORD)).status).toBe(401);
  expect(await calendar()).toBe(404);
  // The packet goes on: its next letters come from who took over, and so does what is told.
  await way.signAll(await server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  await way.signAll(await server.tokenFor(packet.id, 'Tobias Mercer'), 'Tobias Mercer');
  await way.sealed(packet.id);
  const messages = await way.messagesOf(packet.id);
  expect(messages.filter((m) => m.toEmail === 'gil@example.com' && m.kind !== 'invitation')).toEqual([]);
  expect(messages.some((m) => m.toEmail === odile.email && m.kind === 'notice_executed')).toBe(true);
  expect((await server.ok('deal', { params: { dealId: deal.id } })).memberIds).toEqual([odile.id]);
  expect((await server.call('sendPacket', { params: { packetId: draft.id }, body: { version: 1 } })).status).toBe(422);
  // Enabled again they sign in as before; what was handed over stays where it is.
  await server.ok('enableMember', { params: { memberId: leaving.id } });
  expect((await signIn('gil@example.com', PASSWORD)).status).toBe(200);
  expect((await server.ok('deal', { params: { dealId: deal.id } })).memberIds).toEqual([odile.id]);
});

test('the last owner stays; nobody hands over to nobody, to themselves, or to who has left', async () => {
  const odile = (await server.ok('session')).member!;
  const member = await joined('Hal Ives', 'hal@example.com');
  const disable = (memberId: string, toId: string) =>
    server.call('disableMember', { params: { memberId }, body: { toId } });
  const last = await disable(odile.id, member.id);
  expect([last.status, last.problem.type]).toEqual([409, '/problems/last-owner']);
  expect((await disable(member.id, member.id)).problem.type).toBe('/problems/unknown-member');
  expect((await disable(member.id, 'nobody')).problem.type).toBe('/problems/unknown-member');
  const owner = await joined('Ira Jay', 'ira@example.com', 'owner');
  // Two owners who disable each other at once: one of them stays.
  const both = await Promise.all([disable(owner.id, odile.id), as(owner.cookie, () => disable(odile.id, owner.id))]);
  expect(both.map((a) => a.status).filter((s) => s === 200)).toHaveLength(1);
  const { rows } = await server.ctx.database.pool.query(
    `select count(*)::int as n from member where role = 'owner' and disabled_at is null`,
  );
  expect(rows[0].n).toBe(1);
});
