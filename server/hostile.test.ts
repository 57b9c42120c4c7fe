/** What somebody who wants to break it sends: keys nobody asked for, shapes that grow, characters that cannot be kept. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { paths, pathWith, type PacketView, type RouteName } from '@gatepath/contract';
import { allRoutes, isFile } from '@gatepath/contract/routes';
import { documentOr404 } from './documents/service';
import { loadEvents } from './packets/log';
import { newId } from './ids';
import { Way } from './test/way';
import { typedHand } from './test/harness';
import { ACTIVE_WORDS, activePaper } from './test/nasty';
import { paper } from './test/papers';
import { judged, sound } from './test/judges';

jest.setTimeout(240_000);

let way: Way;
let packet: PacketView;
let token: string;
let dealId: string;
let documentId: string;

beforeAll(async () => {
  way = await Way.start();
  const sent = await way.send(
    [
      { name: 'Wren Alder', email: 'wren@example.com' },
      { name: 'Tobias Mercer', email: 't@example.com' },
    ],
    [{ names: ['Wren'] }, { names: ['Tobias'] }],
  );
  packet = sent.packet;
  dealId = sent.deal.id;
  documentId = packet.sent!.plan.documents[0]!.id;
  token = await way.server.tokenFor(packet.id, 'Wren Alder');
  const view = await way.server.ok('signing', { params: { token }, as: 'nobody' });
  await way.server.ok('agree', { params: { token }, body: { agreement: view.agreementText.version }, as: 'nobody' });
  await way.server.ok('setHand', { params: { token }, body: typedHand('Wren Alder', 'WA'), as: 'nobody' });
});
afterAll(() => way.stop());

const params = () => ({
  dealId,
  packetId: packet.id,
  documentId,
  partyId: packet.sent!.plan.parties[0]!.id,
  ruleId: 'sample-sale-lead_paint',
  personId: newId(),
  messageId: newId(),
  sha256: '0'.repeat(64),
  markId: 's0',
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
  list: 'deals' as const,
  tableKind: 'people' as const,
  token,
  page: 1,
});

const RULE = {
  kinds: ['sale'],
  when: { fact: 'year_built', compare: 'before', value: 1978 },
  paper: 'lead_paint',
  title: 'Lead paint',
  signers: ['seller'],
  due: { n: 3, unit: 'days', way: 'after', roll: true, from: 'accepted' },
  reason: 'old',
  on: true,
};

/** Bodies that each route takes, so that only what is added to them can be refused. */
const bodies: Partial<Record<RouteName, object>> = {
  setup: { firmName: 'F', timeZone: 'America/New_York', name: 'N', email: 'n@example.com', password: 'long enough 1' },
  signIn: { email: 'nobody@example.com', password: 'x' },
  join: { name: 'N', password: 'long enough 1' },
  forgotPassword: { email: 'nobody@example.com' },
  resetPassword: { password: 'long enough 1' },
  changePassword: { current: 'x', password: 'long enough 1' },
  invite: { name: 'N', email: 'n@example.com', role: 'member' },
  disableMember: { toId: 'none' },
  waive: { reason: 'No paint' },
  setPerson: { name: 'Wren Alder', email: 'wren@example.com', phone: null, company: '' },
  mergePerson: { personId: 'somebody' },
  newRule: RULE,
  setRule: RULE,
  tryRule: { kinds: ['sale'], when: null, paper: 'lead_paint', title: 'T', signers: [], due: null, reason: 'R' },
  turnRules: { ids: ['sample-sale-lead_paint'], on: true },
  setOwnFacts: { facts: [{ key: 'own.pier', label: 'Pier', type: 'flag', kinds: ['sale'] }] },
  seen: { until: '2026-11-23T12:00:00Z' },
  setNotices: { notices: [], digest: false },
  setHolidays: { holidays: [] },
  setPlaceRemembered: { on: true },
  tryAgain: { queue: 'nothing', thing: 'x' },
  forwardClock: { hours: 1 },
  dealsAct: { dealIds: ['none'], act: 'archive' },
  saveText: { name: 'Greeting', text: 'Good morning,' },
  saveView: { name: 'Mine', query: {} },
  newWritten: { name: 'House rules' },
  saveWritten: { version: 1, text: { doc: { type: 'doc', content: [] } } },
  giveOwnCode: { code: '123456' },
  setOwnLanguage: { language: 'en' },
  sendLater: { version: 1, day: '2027-11-30', hour: 9 },
  setLets: { lets: [] },
  newNotice: { kitId: 'none' },
  setNotice: { name: 'Rent' },
  addHomes: { dealIds: ['none'] },
  setNoticeRow: { leftOut: true },
  lettersWent: { day: '2026-11-30', way: 'post' },
  setNoticeRules: { rules: [] },
  newKit: { name: 'Kit', formIds: ['none'] },
  addToShelf: { packetId: 'none', name: 'Kept' },
  setShelfItem: { retired: false },
  editShelfItem: { edits: [{ op: 'set', field: 'name', value: 'x' }] },
  putOnShelf: { version: 1 },
  tryKit: { name: 'x' },
  useKit: { name: 'x' },
  newDeal: { kind: 'sale', address: '1 Weir Terrace' },
  openIncoming: { kind: 'sale', address: '1 Weir Terrace', facts: { price: 1 }, dates: { closing: '2027-01-15' } },
  actOnStated: { documentId: 'none', field: 'date.closing', value: '2027-01-15', act: 'dismiss' },
  setDeal: { city: 'Tern Lock' },
  addParty: { side: 'buyer', name: 'Ada' },
  setParty: { side: 'seller', name: 'Wren Alder', email: 'wren@example.com' },
  composeDocument: { name: 'x', parts: [{ documentId: 'none', page: 1 }] },
  setDocument: {},
  beginPaperReview: { blankId: null },
  sayOfPlaces: { places: [] },
  endReview: { how: 'kept', reason: 'The bank takes it so.' },
  newPacket: { name: 'Another' },
  editPacket: { edits: [{ op: 'set', field: 'name', value: 'x' }] },
  sendPacket: { version: 1 },
  withdrawPacket: { reason: 'x' },
  changePacket: { type: 'nudge', partyIds: [] },
  newVersion: { reason: 'x' },
  lateRound: { documentIds: ['x'] },
  returnMessage: {},
  agree: { agreement: 'x' },
  setHand: { form: 'typed', face: 'caveat', signature: 'Wren', initials: 'W' },
  fill: { actId: 'act-never' },
  finish: { actId: 'act-never' },
  giveCode: { code: '1' },
  setLanguage: { language: 'en' },
  askQuestion: { actId: 'q-never', text: 'x' },
  handOver: { name: 'x', email: 'x@example.com', reason: 'x' },
  decline: { reason: 'x' },
};

const withBody = allRoutes.filter(([, r]) => r.body && !isFile(r.body)).map(([name]) => name);

test('the test knows a body for every route that takes one', () => {
  expect(withBody.filter((n) => !bodies[n])).toEqual([]);
});

test('no route takes a key it did not ask for, and no command its type, person or time from a body', async () => {
  const before = await loadEvents(way.server.ctx.database.pool, packet.id);
  const extra: Record<string, unknown> = {
    type: 'withdraw',
    partyId: packet.sent!.plan.parties[1]!.id,
    by: 'x',
    at: '2099-01-01T00:00:00Z',
    actor: { kind: 'member' },
    file: { sha256: '0'.repeat(64), name: 'x', bytes: 1, pages: [] },
    today: '2099-01-01',
    reason: 'x',
    dateText: 'Jan 1, 1999',
  };
  for (const name of withBody)
    for (const [key, value] of Object.entries(extra)) {
      if (key in bodies[name]!) continue;
      // "type" chooses among the sender's changes; there it is asked for.
      const a = await way.server.call(name, { params: params(), body: { ...bodies[name], [key]: value } });
      const isField = (name === 'setDocument' && key === 'type') || (name === 'changePacket' && key === 'type');
      if (!isField) expect([name, key, a.status]).toEqual([name, key, 422]);
    }
  for (const name of withBody)
    for (const poison of ['{"__proto__":{"type":"withdraw"}}', '{"constructor":{"prototype":{"x":1}}}']) {
      const a = await way.server.inject({
        method: paths[name].method,
        url: pathWith(name, params()),
        headers: { 'content-type': 'application/json' },
        payload: poison,
        cookies: { gatepath_session: way.server.cookie },
      });
      expect([name, a.status >= 400 && a.status < 500]).toEqual([name, true]);
    }
  expect(await loadEvents(way.server.ctx.database.pool, packet.id)).toEqual(before);
});

test('what was seen done with nothing but a signing link is refused', async () => {
  const plan = packet.sent!.plan;
  const bad = [
    { type: 'withdraw', reason: 'gone' },
    { type: 'tick', today: '2099-01-01', working: true },
    { type: 'add_party', party: plan.parties[0], gates: [], marks: [] },
    { type: 'answer', questionId: 'q', text: 'yes' },
    { type: 'finish', dateText: 'Jan 1, 1999' },
    { file: { sha256: plan.documents[0]!.sha256, name: 'x', bytes: 1, pages: [] } },
    { type: 'revise', forSeq: 1, documents: [] },
  ];
  const before = await loadEvents(way.server.ctx.database.pool, packet.id);
  for (const more of bad) {
    const body = { actId: `act-${newId()}`, ...more };
    const a = await way.server.call('fill', { params: { token, markId: 's0' }, body, as: 'nobody' });
    expect(a.status).toBe(422);
  }
  expect(await loadEvents(way.server.ctx.database.pool, packet.id)).toEqual(before);
});

test('NUL, halves of characters, lists where text is wanted and odd addresses are refused in words, never a fault', async () => {
  const odd: unknown[] = ['a\u0000b', 'half \ud83d', '\udc00', ['x'], { a: 1 }, Infinity, null];
  for (const name of withBody)
    for (const [key, value] of Object.entries(bodies[name]!))
      for (const v of odd) {
        // These would end what the rest of the test needs; their texts are tried below.
        if (['withdrawPacket', 'newVersion', 'decline', 'handOver', 'forwardClock'].includes(name)) continue;
        if (name === 'signIn' && typeof v === 'string') continue;
        const a = await way.server.call(name, { params: params(), body: { ...bodies[name], [key]: v } });
        expect([name, key, v, a.status < 500]).toEqual([name, key, v, true]);
        void value;
      }
  for (const bad of ['%00', 'a%00b', '%ED%A0%80', 'x'.repeat(2000), '..%2f..%2fetc', '%E2%80%AE'])
    for (const url of [`/api/deals/${bad}`, `/api/signing/${bad}`, `/api/words/${bad}`, `/api/mailroom/${bad}`]) {
      const a = await way.server.inject({ method: 'GET', url, cookies: { gatepath_session: way.server.cookie } });
      expect([url.slice(0, 60), a.status >= 400 && a.status < 500]).toEqual([url.slice(0, 60), true]);
    }
  for (const query of ['search=%00', 'search=a&search=b', 'after=%00', 'limit=x', 'more=1']) {
    const a = await way.server.inject({
      method: 'GET',
      url: `/api/deals?${query}`,
      cookies: { gatepath_session: way.server.cookie },
    });
    expect([query, a.status]).toEqual([query, 422]);
  }
});

test('a text that cannot be kept is refused in the client’s language, and the next act goes on', async () => {
  await way.server.ok('setLanguage', { params: { token }, body: { language: 'es' }, as: 'nobody' });
  const ask = (text: string) =>
    way.server.call('askQuestion', {
      params: { token },
      body: { actId: `q-${newId()}`, text },
      as: 'nobody',
    });
  const bad = await ask('¿Por qué?\u0000');
  expect(bad.status).toBe(422);
  expect(bad.problem.type).toBe('/problems/unclean');
  expect(bad.problem.detail).toContain('caracteres');
  expect((await ask('¿Por qué? 🙂')).status).toBe(200);
});

test('names lose what only steers how they are shown', async () => {
  const deal = await way.server.deal('9 Weir\u202e Terrace\u0007'.replace('\u0007', ''), [
    { side: 'seller', name: 'Ada\u200b \u2066Byron\u2069\r\nx', email: 'ada@example.com' },
  ]);
  expect(deal.address).toBe('9 Weir Terrace');
  expect(deal.parties[0]!.name).toBe('Ada Byron x');
  const doc = await way.server.uploadReady(deal.id, 'inv\u202egpj.pdf', await paper({ pages: 1 }));
  expect(doc.fileName).toBe('invgpj.pdf');
});

const raw = (url: string, method: 'POST' | 'PUT', payload: string | Buffer, type = 'application/json', cookie = true) =>
  way.server.inject<{ detail: string }>({
    method,
    url,
    payload,
    headers: { 'content-type': type },
    ...(cookie ? { cookies: { gatepath_session: way.server.cookie } } : {}),
  });

test('rights are asked before a body is looked at, and bodies are bounded before they are parsed', async () => {
  const hand = JSON.stringify({
    form: 'drawn',
    signature: { width: 300, height: 100, strokes: Array.from({ length: 200 }, () => new Array(2400).fill(1)) },
    initials: { width: 300, height: 100, strokes: [[1, 2]] },
    initialsText: 'W',
  });
  expect((await raw('/api/signing/no-such-link/hand', 'PUT', hand, 'application/json', false)).status).toBe(404);
  expect((await raw('/api/deals', 'POST', '['.repeat(200_000), 'application/json', false)).status).toBe(401);
  expect((await raw(`/api/signing/${token}/hand`, 'PUT', hand)).status).toBe(422);
  const deep = await raw('/api/deals', 'POST', '['.repeat(100_000));
  expect([deep.status, deep.problem.detail]).toEqual([422, expect.stringContaining('nested too deeply')]);
  const many = await raw(`/api/packets/${packet.id}/edits`, 'POST', `[${'1,'.repeat(400_000)}1]`);
  expect([many.status, many.problem.detail]).toEqual([422, expect.stringContaining('request is too large')]);
  const large = await raw('/api/deals', 'POST', JSON.stringify({ address: 'x'.repeat(5_000_000) }));
  expect([large.status, large.problem.detail]).toEqual([413, expect.stringContaining('256 kB')]);
  for (const body of ['null', '1', '"x"', '[]', '', '{', '\u0000'])
    for (const name of ['newDeal', 'editPacket', 'setHand', 'fill'] as const) {
      const a = await raw(pathWith(name, params()), paths[name].method, body);
      expect([name, body, a.status >= 400 && a.status < 500]).toEqual([name, body, true]);
    }
});

test('every form is answered, also one with parts nobody can name', async () => {
  const type = 'multipart/form-data; boundary=b';
  const part = (head: string) => `--b\r\n${head}\r\n\r\nx\r\n--b--\r\n`;
  const forms = [
    part('Content-Disposition: form-data'),
    part('Content-Disposition: attachment; filename="a.pdf"'),
    part('Content-Disposition: form-data; name="file"; filename*=UTF-8\'\'a%0d%0ab.pdf'),
    part('Content-Disposition: form-data; name="x"'),
    part('X: y'),
    '--b--\r\n',
    '',
    `--b\r\nContent-Disposition: form-data; name="file"; filename="a.pdf"\r\n\r\ncut off`,
  ];
  for (const form of forms)
    for (const url of ['/api/check', `/api/deals/${dealId}/documents`]) {
      const a = await raw(url, 'POST', form, type);
      expect([form.slice(0, 60), url, a.status >= 400 && a.status < 500]).toEqual([form.slice(0, 60), url, true]);
    }
  expect((await raw('/api/check', 'POST', 'x', 'multipart/form-data')).status).toBe(422);
  expect((await raw('/api/check', 'POST', '{}')).status).toBe(422);
});

test('of a file full of active content none is in the prepared or in the sealed copy', async () => {
  const { packet: sent, deal } = await way.send([{ name: 'Wren Alder' }], [{ names: ['Wren'] }], [], activePaper());
  const { id } = sent.sent!.plan.documents[0]!;
  const told = (await way.server.ok('deal', { params: { dealId: deal.id } })).documents.find((d) => d.id === id)!;
  expect(told.leftOut!.map((l) => l.what)).toEqual(expect.arrayContaining(['scripts', 'actions', 'attachments']));
  await way.signAll(await way.server.tokenFor(sent.id, 'Wren Alder'), 'Wren Alder');
  const [sealed] = await way.sealed(sent.id);
  const { ctx } = way.server;
  const prepared = await ctx.files.read((await documentOr404(ctx.database.pool, id)).sha256);
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-active-'));
  const found = (bytes: Buffer, name: string) => {
    const file = path.join(dir, name);
    writeFileSync(file, new Uint8Array(bytes));
    const raw = execFileSync('strings', [file], { maxBuffer: 1 << 28 }).toString('latin1');
    const open = execFileSync('qpdf', ['--qdf', '--object-streams=disable', file, '-'], { maxBuffer: 1 << 28 });
    return ACTIVE_WORDS.filter((w) => raw.includes(w) || open.toString('latin1').includes(w));
  };
  // The control: the same two tools do find them in the file as it came.
  const came = (await way.server.call('documentFile', { params: { documentId: id } })).raw;
  expect(found(came, 'came.pdf').length).toBeGreaterThan(ACTIVE_WORDS.length - 5);
  expect(found(prepared, 'prepared.pdf')).toEqual([]);
  expect(found(sealed!, 'sealed.pdf')).toEqual([]);
  expect(judged(sealed!)).toEqual(sound(2));
  rmSync(dir, { recursive: true });
});
