/** A person's own page: everything of theirs, nothing of anybody else's, behind a code. */
import type { MessageView, OwnPage } from '@gatepath/contract';
import { textOf } from '../test/judges';
import { tokenIn, Way } from '../test/way';

jest.setTimeout(120_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
  way.server.toNoon();
});
afterAll(() => way.stop());

const { entries } = Object;
const mails = async (kind: string, to: string): Promise<MessageView[]> => {
  const { items } = await way.server.ok('mailroom', { query: { limit: '100' } });
  const of = items.filter((m) => m.kind === kind && m.toName === to);
  return Promise.all(of.map((m) => way.server.ok('message', { params: { messageId: m.id } })));
};
const pause = () => way.server.ctx.clock.forward(61_000);

/** Asks for somebody's page through a link of theirs. @returns its secret */
const pageFor = async (link: string, name: string): Promise<string> => {
  pause();
  await way.server.ok('askForPage', { params: { token: link }, as: 'nobody' });
  const [mail] = await mails('own_page', name);
  return mail!.link!.split('/mine/')[1]!;
};

/** Lets a browser in. @returns the cookie it shows from then on */
const letIn = async (token: string, name: string): Promise<string> => {
  pause();
  await way.server.ok('sendOwnCode', { params: { token }, as: 'nobody' });
  const [mail] = await mails('own_code', name);
  const code = /\b\d{6}\b/.exec(mail!.bodyText)![0];
  const r = await way.server.running.app.inject({
    method: 'POST',
    url: `/api/mine/${token}/step`,
    payload: { code },
  });
  expect(r.statusCode).toBe(200);
  const c = r.cookies.find((x) => x.name.startsWith('gatepath_own_'))!;
  expect([c.httpOnly, c.path]).toEqual([true, '/api/mine']);
  return `${c.name}=${c.value}`;
};
const look = (token: string, cookie = '') =>
  way.server.call('ownPage', { params: { token }, as: 'nobody', headers: cookie ? { cookie } : {} });

let wrens: string;
let callums: string;
let wren: { token: string; cookie: string };
let packetOfOthers: string;

test('the page is asked for through any link, and its address goes where the links go', async () => {
  const people = [
    { name: 'Wren Alder', email: 'home@example.com' },
    { name: 'Callum Alder', email: 'home@example.com' },
  ];
  const one = await way.send(people, [{ names: ['Wren', 'Callum'] }]);
  const other = await way.send([{ name: 'Agnes Thorvald', email: 'agnes@example.com' }], [{ names: ['Agnes'] }]);
  packetOfOthers = other.packet.id;
  const links = await Promise.all(
    ['Wren Alder', 'Callum Alder'].map(async (name) => tokenIn((await mails('ask', name))[0]!)),
  );
  [wrens, callums] = links as [string, string];
  const sent = await way.server.ok('askForPage', { params: { token: wrens }, as: 'nobody' });
  expect(sent.to).toBe('h…@example.com');
  // Not again at once: nobody is flooded.
  const soon = await way.server.call('askForPage', { params: { token: wrens }, as: 'nobody' });
  expect([soon.status, soon.problem.type]).toEqual([429, '/problems/code-soon']);
  const [mail] = await mails('own_page', 'Wren Alder');
  expect([mail!.toEmail, mail!.bodyText]).toEqual([
    'home@example.com',
    expect.stringContaining('It is for Wren Alder alone.'),
  ]);
  expect(one.packet.id).not.toBe(packetOfOthers);
});

test('before the code it shows nothing but whose firm it is and where the code goes', async () => {
  const token = await pageFor(wrens, 'Wren Alder');
  const before = (await look(token)).body;
  expect({ ...before, languages: [] }).toEqual({
    firmName: 'Towpath & Vane Realty',
    firstName: 'Wren',
    language: 'en',
    languages: [],
    code: { to: 'h…@example.com', sent: false },
    proved: false,
    name: '',
    packets: [],
    next: null,
  });
  const params = { token, packetId: packetOfOthers, documentId: 'none' };
  for (const name of ['openOwn', 'ownFile'] as const)
    expect((await way.server.call(name, { params, as: 'nobody' })).problem.type).toBe('/problems/step-wanted');
  const cookie = await letIn(token, 'Wren Alder');
  wren = { token, cookie };
  const page = (await look(token, cookie)).body;
  expect([page.proved, page.name, page.packets.map((x) => [x.name, x.status])]).toEqual([
    true,
    'Wren Alder',
    [['Papers', 'to_do']],
  ]);
});

test('two people with one mailbox have a page each, and neither opens the other’s', async () => {
  const token = await pageFor(callums, 'Callum Alder');
  // Wren's code opened Wren's page, and not Callum's.
  expect((await look(token, wren.cookie)).body).toMatchObject({ proved: false, packets: [], firstName: 'Callum' });
  const cookie = await letIn(token, 'Callum Alder');
  const [mine] = (await look(token, cookie)).body.packets;
  const [hers] = (await look(wren.token, wren.cookie)).body.packets;
  expect(mine!.id).toBe(hers!.id);
  expect(mine!.partyId).not.toBe(hers!.partyId);
  // The next paper is one touch away, as whoever's page it is.
  const params = { token, packetId: mine!.id };
  const link = await way.server.ok('openOwn', { params, as: 'nobody', headers: { cookie } });
  expect((await way.server.ok('signing', { params: { token: link.token } })).me.name).toBe('Callum Alder');
});

test('touched again and again it keeps few ways in open: the newest work, the others have ended', async () => {
  const [paper] = (await look(wren.token, wren.cookie)).body.packets;
  const headers = { cookie: wren.cookie };
  const made: string[] = [];
  for (let i = 0; i < 9; i++) {
    const { token } = await way.server.ok('openOwn', {
      params: { token: wren.token, packetId: paper!.id },
      as: 'nobody',
      headers,
    });
    made.push(token);
    pause();
  }
  const opens = await Promise.all(
    made.map(async (token) => (await way.server.call('signing', { params: { token }, as: 'nobody' })).status === 200),
  );
  expect(opens).toEqual([false, false, false, false, true, true, true, true, true]);
  // The link of the letter is none of them, and still works.
  expect((await way.server.call('signing', { params: { token: wrens }, as: 'nobody' })).status).toBe(200);
});

test('nothing of anybody else is there: no packet, no document, not even whether there is one', async () => {
  const headers = { cookie: wren.cookie };
  const theirs = await way.server.ok('packet', { params: { packetId: packetOfOthers } });
  const documentId = theirs.draft.documents[0]!.id;
  for (const [packetId, doc] of entries({ [packetOfOthers]: documentId, none: 'none' })) {
    const params = { token: wren.token, packetId, documentId: doc };
    for (const name of ['openOwn', 'ownFile'] as const) {
      const a = await way.server.call(name, { params, as: 'nobody', headers });
      expect([name, a.status, a.problem.type]).toEqual([name, 404, '/problems/not-found']);
    }
  }
  const [own] = (await look(wren.token, wren.cookie)).body.packets;
  const mixed = { token: wren.token, packetId: own!.id, documentId };
  expect((await way.server.call('ownFile', { params: mixed, as: 'nobody', headers })).status).toBe(404);
  expect(JSON.stringify((await look(wren.token, wren.cookie)).body)).not.toMatch(/Agnes|callum/i);
});

test('whoever was handed a packet finds it, and whoever handed it over does not any more', async () => {
  const sent = await way.send([{ name: 'Tamsin Reyes', email: 'tamsin@example.com' }], [{ names: ['Tamsin'] }]);
  const token = await pageFor(tokenIn((await mails('ask', 'Tamsin Reyes'))[0]!), 'Tamsin Reyes');
  const cookie = await letIn(token, 'Tamsin Reyes');
  expect((await look(token, cookie)).body.packets).toHaveLength(1);
  await way.server.ok('changePacket', {
    params: { packetId: sent.packet.id },
    body: { type: 'correct_party', partyId: sent.id('Tamsin'), name: 'Edmund Vale', email: 'edmund@example.com' },
  });
  expect((await look(token, cookie)).body.packets).toHaveLength(0);
  const params = { token, packetId: sent.packet.id };
  expect((await way.server.call('openOwn', { params, as: 'nobody', headers: { cookie } })).status).toBe(404);
});

test('signed and sealed it is there as it was sent and as it was sealed, in the language of its person', async () => {
  const headers = { cookie: wren.cookie };
  for (const name of ['Wren Alder', 'Callum Alder'])
    await way.server.sign(tokenIn((await mails('ask', name))[0]!), {
      form: 'typed',
      face: 'caveat',
      signature: name,
      initials: 'XX',
    });
  await way.server.ctx.jobs.idle('seal');
  const page: OwnPage = await way.server.ok('setOwnLanguage', {
    params: { token: wren.token },
    body: { language: 'es' },
    as: 'nobody',
    headers,
  });
  const [packet] = page.packets;
  expect([page.language, packet!.status, packet!.documents.map((d) => d.sealed)]).toEqual(['es', 'executed', [true]]);
  const params = { token: wren.token, packetId: packet!.id, documentId: packet!.documents[0]!.id };
  const file = async (as: string) =>
    (await way.server.call('ownFile', { params, query: { as }, as: 'nobody', headers })).raw;
  expect(await textOf(await file('sealed'))).toContain('Signing record');
  expect(await textOf(await file('original'))).not.toContain('Signing record');
});

test('guessing is counted: after five wrong codes even the right one waits, and an old one has run out', async () => {
  const { token } = wren;
  pause();
  await way.server.ok('sendOwnCode', { params: { token }, as: 'nobody' });
  const [mail] = await mails('own_code', 'Wren Alder');
  const code = /\b\d{6}\b/.exec(mail!.bodyText)![0];
  const give = (c: string) => way.server.call('giveOwnCode', { params: { token }, body: { code: c }, as: 'nobody' });
  const wrong = code === '000000' ? '000001' : '000000';
  const kinds = [];
  for (let i = 0; i < 5; i++) kinds.push((await give(wrong)).problem.type);
  expect(kinds).toEqual([...Array.from({ length: 4 }, () => '/problems/wrong-code'), '/problems/locked']);
  expect((await give(code)).problem.type).toBe('/problems/locked');
  expect((await way.server.call('sendOwnCode', { params: { token }, as: 'nobody' })).problem.type).toBe(
    '/problems/locked',
  );
  way.server.ctx.clock.forward(31 * 60_000);
  // The code went with the lock; a new one is asked for, and left lying too long.
  expect((await give(code)).problem.type).toBe('/problems/wrong-code');
  await way.server.ok('sendOwnCode', { params: { token }, as: 'nobody' });
  const fresh = /\b\d{6}\b/.exec((await mails('own_code', 'Wren Alder'))[0]!.bodyText)![0];
  way.server.ctx.clock.forward(16 * 60_000);
  expect((await give(fresh)).problem.detail).toContain('ya venció');
  // So does what was given before, after some hours.
  way.server.ctx.clock.forward(13 * 3_600_000);
  expect((await look(token, wren.cookie)).body.proved).toBe(false);
  const nobody = await look('A'.repeat(32));
  expect([nobody.status, nobody.problem.type]).toEqual([404, '/problems/dead-link']);
});

test('tries are counted per person: another page of theirs gives no other five', async () => {
  const first = await pageFor(wrens, 'Wren Alder');
  const second = await pageFor(wrens, 'Wren Alder');
  const give = (token: string) =>
    way.server.call('giveOwnCode', { params: { token }, body: { code: '000000' }, as: 'nobody' });
  // The test before left one wrong code behind.
  await letIn(first, 'Wren Alder');
  for (let i = 0; i < 4; i++) expect((await give(i % 2 ? first : second)).problem.type).toBe('/problems/wrong-code');
  expect((await give(second)).problem.type).toBe('/problems/locked');
  for (const token of [first, await pageFor(wrens, 'Wren Alder')])
    expect((await way.server.call('sendOwnCode', { params: { token }, as: 'nobody' })).problem.type).toBe(
      '/problems/locked',
    );
  // Whoever has the same mailbox and another name is not locked out by that.
  expect(await letIn(await pageFor(callums, 'Callum Alder'), 'Callum Alder')).toContain('gatepath_own_');
});
