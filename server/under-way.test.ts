/** Between "send" and the last signature: what happens to a packet on its way, against the real server. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import {
  unpackFacts,
  type ChangeBody,
  type DealView,
  type MessageView,
  type PackedFacts,
  type PacketView,
  type Page,
  type SessionView,
  type SigningView,
} from '@gatepath/contract';
import { FreeSpace, type DraftEdit } from '@gatepath/core/marks';
import type { PacketParty } from '@gatepath/core/routing';
import { runCalendar } from './jobs/calendar';
import { disagreements, verifyChain } from './proof/chain-file';
import { verifySealed } from './proof/verify';
import { TestServer, typedHand } from './test/harness';
import { paper } from './test/papers';

jest.setTimeout(180_000);

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const DAY = 86_400_000;
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-way-'));

interface Sent {
  deal: DealView;
  packet: PacketView;
  id: (name: string) => string;
}

/** A packet of one paper; everybody who signs initials both pages and signs page 2, gates as given. */
async function sendPacket(
  people: { name: string; email?: string; phone?: string; more?: Partial<PacketParty> }[],
  gates: { names: string[]; need?: 'any' }[],
  edits: DraftEdit[] = [],
): Promise<Sent> {
  const deal = await server.deal(
    '14 Lantern Row',
    people.map(({ name, email, phone }) => ({
      side: 'seller' as const,
      name,
      ...(email === undefined ? {} : { email }),
      ...(phone ? { phone } : {}),
    })),
  );
  const doc = await server.uploadReady(deal.id, 'disclosure.pdf', await paper({ pages: 2 }));
  const draft = await server.ok<PacketView>('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Papers', documentIds: [doc.id] },
  });
  const id = (name: string) => deal.parties.find((p) => p.name.startsWith(name))!.id;
  const parties = draft.draft.parties.map((p) => ({ ...p, ...people.find((x) => x.name === p.name)!.more }));
  await server.edit(draft.id, [
    ...draft.draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
    ...parties.map((item): DraftEdit => ({ op: 'put', list: 'parties', item })),
    ...gates.map((g, i): DraftEdit => ({
      op: 'put',
      list: 'gates',
      item: { id: `g${i}`, partyIds: g.names.map(id), ...(g.need ? { need: g.need } : {}) },
    })),
    ...parties
      .filter((p) => p.act === 'sign' || p.act === 'desk')
      .flatMap((p, i): DraftEdit[] => [
        mark(`s${i}`, doc.id, 2, 'signature', p.id, { x: 72, y: 640 + i * 34, w: 160, h: 26 }),
        mark(`d${i}`, doc.id, 2, 'date_signed', p.id, { x: 260, y: 640 + i * 34, w: 90, h: 20 }),
      ]),
    {
      op: 'put',
      list: 'rules',
      item: {
        id: 'every',
        documentId: doc.id,
        partyIds: parties.filter((p) => p.act === 'sign' || p.act === 'desk').map((p) => p.id),
        anchor: { fx: 0, fy: 1 },
        except: [],
        moved: [],
      },
    },
    ...edits,
  ]);
  return { deal, packet: await server.send(draft.id), id };
}

const mark = (
  id: string,
  documentId: string,
  page: number,
  kind: 'initials' | 'signature' | 'date_signed',
  partyId: string,
  rect: { x: number; y: number; w: number; h: number },
): DraftEdit => ({
  op: 'put',
  list: 'marks',
  item: { id, documentId, page, kind, partyId, rect, required: true },
});

const change = (packetId: string, body: ChangeBody) =>
  server.ok<PacketView>('changePacket', { params: { packetId }, body });
const look = (packetId: string) => server.ok<PacketView>('packet', { params: { packetId } });

/** Does everything a party has to do through a token. */
async function signAll(token: string, name: string): Promise<SigningView> {
  const call = <T>(route: Parameters<TestServer['ok']>[0], body?: unknown, more: Record<string, string> = {}) =>
    server.ok<T>(route, { params: { token, ...more }, body, as: 'nobody' });
  let view = await call<SigningView>('signing');
  if (!view.agreed) view = await call('agree', { agreement: view.agreementText.version });
  if (!view.hand && view.me.act !== 'approve')
    view = await call(
      'setHand',
      typedHand(
        name,
        name
          .split(' ')
          .map((w) => w[0])
          .join(''),
      ),
    );
  for (const m of view.marks.filter((x) => !x.done && !x.automatic))
    view = await call('fill', { actId: `act-${m.id}-${view.packetId}` }, { markId: m.id });
  return call('finish', { actId: `finish-${name.replace(/\W/g, '')}-${view.marks.length}` });
}

async function messagesOf(packetId: string): Promise<MessageView[]> {
  const page = await server.ok<Page<MessageView>>('mailroom', { query: { packetId, limit: '100' } });
  return Promise.all(page.items.map((m) => server.ok<MessageView>('message', { params: { messageId: m.id } })));
}
const newest = async (packetId: string, name: string, kind?: string) =>
  (await messagesOf(packetId)).find((m) => m.toName === name && (!kind || m.kind === kind))!;
const tokenIn = (m: MessageView) => m.link!.split('/sign/')[1]!;

async function sealed(packetId: string): Promise<Buffer[]> {
  for (let i = 0; i < 200; i++) {
    const p = await look(packetId);
    if (p.sent?.sealed)
      return Promise.all(
        p.sent.sealed.map(
          async (s) => (await server.call('sealedCopy', { params: { packetId, documentId: s.documentId } })).raw,
        ),
      );
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error('never sealed');
}

const statusOf = (token: string) => server.call<{ detail: string }>('signing', { params: { token }, as: 'nobody' });

test('from the first seal to the record: every state can be cut out, and other tools agree', async () => {
  const { packet, id } = await sendPacket(
    [
      { name: 'Wren Alder' },
      { name: 'Callum Alder', more: { language: 'es' } },
      { name: 'Ana Attorney', more: { act: 'approve' } },
      { name: 'Tobias Mercer', email: '', more: { act: 'desk' } },
      { name: 'Escrow Desk', more: { act: 'copy' } },
    ],
    [{ names: ['Wren', 'Callum'] }, { names: ['Ana'] }, { names: ['Tobias'] }],
  );
  await signAll(await server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  const callum = await server.tokenFor(packet.id, 'Callum Alder');
  await signAll(callum, 'Callum Alder');
  await signAll(await server.tokenFor(packet.id, 'Ana Attorney', 'ask_approve'), 'Ana Attorney');
  // At the desk nobody gets a link: the host opens the ceremony, and is in the record.
  expect((await messagesOf(packet.id)).filter((m) => m.toName === 'Tobias Mercer')).toEqual([]);
  const { token } = await server.ok<{ token: string }>('hostParty', {
    params: { packetId: packet.id, partyId: id('Tobias') },
  });
  await signAll(token, 'Tobias Mercer');
  const [pdf] = await sealed(packet.id);
  const check = verifySealed(pdf!);
  expect(check.why).toBe('');
  expect(check.revisions.map((r) => r.name)).toEqual([
    'Wren Alder, Seller 1',
    'Callum Alder, Seller 2',
    'Ana Attorney, Seller 3',
    'Tobias Mercer, Seller 4',
    'Towpath & Vane Realty',
  ]);
  for (const r of check.revisions) {
    const cut = path.join(dir, `cut-${r.n}.pdf`);
    writeFileSync(cut, new Uint8Array(pdf!.subarray(0, r.end)));
    expect(verifySealed(pdf!.subarray(0, r.end)).whole).toBe(true);
    const sig = execFileSync('pdfsig', ['-nocert', cut]).toString();
    expect(sig.match(/Signature Validation: Signature is Valid/g)).toHaveLength(r.n);
    expect(execFileSync('qpdf', ['--check', cut]).toString()).toContain('No syntax or stream encoding errors');
  }
  const record = execFileSync('pdftotext', ['-layout', path.join(dir, 'cut-5.pdf'), '-']).toString();
  expect(record).toContain('At the desk of Odile Farrant');
  expect(record).toContain('Registro de firmas');
  // The chain and the PDF tell the same; another packet's chain does not.
  const chain = verifyChain((await server.call('chain', { params: { packetId: packet.id } })).raw.toString());
  if (!chain.whole) throw new Error(chain.why);
  expect(disagreements(check, chain)).toEqual([]);
  expect(disagreements(verifySealed(pdf!.subarray(0, check.revisions[1]!.end)), chain).join()).toContain(
    'earlier state',
  );
  // Callum reads what he signed in his language.
  expect((await newest(packet.id, 'Callum Alder')).subject).toContain('Firmado por todos');
});

test('an address is fixed under way: the old link dies, a new one goes out', async () => {
  const { packet, id } = await sendPacket([{ name: 'Wren Alder', email: 'wrong@example.com' }], [{ names: ['Wren'] }]);
  const first = await newest(packet.id, 'Wren Alder', 'ask');
  await server.ok('returnMessage', { params: { messageId: first.id }, body: { why: 'No such mailbox' } });
  expect((await look(packet.id)).sent!.holdUp.sentence).toBe('The message to Wren came back. Correct the address.');
  expect((await newest(packet.id, 'Odile Farrant')).subject).toContain('came back');
  const now = await change(packet.id, {
    type: 'correct_party',
    partyId: id('Wren'),
    name: 'Wren Alder',
    email: 'wren@example.com',
    phone: null,
  });
  expect(now.sent!.parties[0]!.bounced).toBeNull();
  const dead = await statusOf(tokenIn(first));
  expect([dead.status, dead.body.detail]).toEqual([404, expect.stringContaining('newest message')]);
  const second = await newest(packet.id, 'Wren Alder', 'new_link');
  expect(second.toEmail).toBe('wren@example.com');
  expect((await statusOf(tokenIn(second))).status).toBe(200);
});

test('a one-time code and a code told in person let in; wrong ones lock out until the sender says otherwise', async () => {
  const { packet, id } = await sendPacket(
    [
      { name: 'Wren Alder', more: { secondStep: 'email' } },
      { name: 'Callum Alder', phone: '555-0101', more: { secondStep: 'phone' } },
      { name: 'Priya Nair', more: { secondStep: 'code', accessCode: 'Heron 12' } },
    ],
    [{ names: ['Wren', 'Callum', 'Priya'] }],
  );
  for (const [name, kind] of [
    ['Wren Alder', 'email'],
    ['Callum Alder', 'phone'],
  ] as const) {
    const token = await server.tokenFor(packet.id, name);
    const before = await server.call<SigningView>('signing', { params: { token }, as: 'nobody' });
    expect(before.body.step).toMatchObject({ kind, sent: false });
    expect(before.body.documents).toEqual([]);
    expect(before.body.packetName).toBe('');
    // What is asked for can be read in another language first.
    const inSpanish = await server.ok<SigningView>('setLanguage', {
      params: { token },
      body: { language: 'es' },
      as: 'nobody',
    });
    expect([inSpanish.language, inSpanish.step?.kind]).toEqual(['es', kind]);
    const page = await server.call('signingPage', {
      params: { token, documentId: packet.draft.documents[0]!.id, page: '1' },
      as: 'nobody',
    });
    expect(page.status).toBe(403);
    await server.ok('sendCode', { params: { token }, as: 'nobody' });
    expect((await server.call('sendCode', { params: { token }, as: 'nobody' })).status).toBe(429);
    const m = await newest(packet.id, name, 'code');
    expect(m.channel).toBe(kind === 'phone' ? 'text' : 'email');
    const code = /\d{6}/.exec(m.bodyText)![0];
    const given = await server.call<SigningView>('giveCode', { params: { token }, body: { code }, as: 'nobody' });
    expect([given.status, given.body.step]).toEqual([200, null]);
    expect(given.body.documents).toHaveLength(1);
    // Another browser, without the proof, is asked again; and the code works once.
    expect((await server.ok<SigningView>('signing', { params: { token }, as: 'nobody' })).step).not.toBeNull();
    const again = await server.call('giveCode', { params: { token }, body: { code }, as: 'nobody' });
    expect(again.status).toBe(422);
  }
  const token = await server.tokenFor(packet.id, 'Priya Nair');
  const give = (code: string) =>
    server.call<{ detail: string }>('giveCode', { params: { token }, body: { code }, as: 'nobody' });
  expect((await give('heron12')).status).toBe(200);
  for (let left = 4; left > 0; left--)
    expect((await give('swan')).body.detail).toContain(left === 1 ? 'one try left' : `${left} tries left`);
  expect((await give('swan')).status).toBe(409);
  expect((await give('heron12')).status).toBe(409);
  expect((await look(packet.id)).sent!.parties[2]!.locked).toBe(true);
  await change(packet.id, { type: 'unlock', partyId: id('Priya') });
  expect((await give('HERON 12')).status).toBe(200);
  // Neither the code nor anybody's address is in the exported chain's plan or in what clients see.
  const chain = (await server.call('chain', { params: { packetId: packet.id } })).raw.toString();
  expect(chain.toLowerCase()).not.toContain('heron');
  const seen = JSON.stringify(await server.ok('signing', { params: { token }, as: 'nobody' }));
  expect(seen).not.toMatch(/wren@example|555-0101/);
});

test('who has a phone and no email is written to there, in short', async () => {
  const { packet } = await sendPacket([{ name: 'Wren Alder', email: '', phone: '555-0111' }], [{ names: ['Wren'] }]);
  const ask = await newest(packet.id, 'Wren Alder');
  expect([ask.channel, ask.toPhone, ask.bodyText.includes(ask.link!)]).toEqual(['text', '555-0111', true]);
  await server.ok('withdrawPacket', { params: { packetId: packet.id }, body: { reason: 'Not now' } });
  expect((await newest(packet.id, 'Wren Alder')).bodyText).toBe('Towpath & Vane Realty: Withdrawn: Papers');
});

test('a question is asked and answered, and handing over leaves a trail', async () => {
  const { packet } = await sendPacket(
    [{ name: 'Wren Alder' }],
    [{ names: ['Wren'] }],
    [{ op: 'set', field: 'handOver', value: true }],
  );
  const token = await server.tokenFor(packet.id, 'Wren Alder');
  const ask = () =>
    server.ok<SigningView>('askQuestion', {
      params: { token },
      body: { actId: 'question-1', text: 'Is the shed included?' },
      as: 'nobody',
    });
  await ask();
  // Sent again after a lost answer it is the same question.
  expect((await ask()).questions).toHaveLength(1);
  expect((await newest(packet.id, 'Odile Farrant')).bodyText).toContain('Is the shed included?');
  await change(packet.id, { type: 'answer', questionId: 'question-1', text: 'Yes, with its roof.' });
  expect((await newest(packet.id, 'Wren Alder', 'answer')).bodyText).toContain('Yes, with its roof.');
  const view = await server.ok<SigningView>('signing', { params: { token }, as: 'nobody' });
  expect(view.questions[0]!.answer!.text).toBe('Yes, with its roof.');
  const over = (body: object) => server.call('handOver', { params: { token }, body, as: 'nobody' });
  expect((await over({ name: 'Bo Vane', email: 'nowhere', reason: 'ill' })).status).toBe(422);
  expect((await over({ name: 'Bo Vane', email: 'bo@example.com', reason: 'I am in hospital' })).status).toBe(204);
  expect((await statusOf(token)).status).toBe(404);
  const bo = tokenIn(await newest(packet.id, 'Bo Vane', 'handed'));
  await signAll(bo, 'Bo Vane');
  const [pdf] = await sealed(packet.id);
  writeFileSync(path.join(dir, 'over.pdf'), new Uint8Array(pdf!));
  const record = execFileSync('pdftotext', ['-layout', path.join(dir, 'over.pdf'), '-']).toString();
  expect(record).toMatch(/Handed over by Wren Alder/);
  expect(record).toContain('I am in hospital');
});

test('a correction is initialled by those who had signed, and holds the packet until then', async () => {
  const { packet } = await sendPacket(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder' }, { name: 'Tobias Mercer' }],
    [{ names: ['Wren'] }, { names: ['Callum'] }, { names: ['Tobias'] }],
  );
  const documentId = packet.draft.documents[0]!.id;
  await signAll(await server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  const now = await change(packet.id, {
    type: 'correct',
    documentId,
    page: 1,
    kind: 'insert',
    text: 'The shed stays.',
    rects: [{ x: 300, y: 680, w: 120, h: 16 }],
  });
  expect(now.sent!.parties.map((p) => [p.status, p.again])).toEqual([
    ['asked', true],
    ['asked', false],
    ['waiting', false],
  ]);
  // Callum, whose gate is open, can finish; the gate stays until Wren has initialled.
  await signAll(await server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  expect((await look(packet.id)).sent!.gate).toBe(1);
  const m = await newest(packet.id, 'Wren Alder', 'ask_again');
  expect(m.bodyText).toContain('The shed stays.');
  const view = await server.ok<SigningView>('signing', { params: { token: tokenIn(m) }, as: 'nobody' });
  expect(view.changes).toEqual([expect.objectContaining({ open: true })]);
  expect(view.marks.filter((x) => !x.done)).toHaveLength(1);
  await signAll(tokenIn(m), 'Wren Alder');
  expect((await look(packet.id)).sent!.gate).toBe(2);
  await signAll(await server.tokenFor(packet.id, 'Tobias Mercer'), 'Tobias Mercer');
  const [pdf] = await sealed(packet.id);
  const check = verifySealed(pdf!);
  expect(check.why).toBe('');
  expect(check.revisions.map((r) => `${r.name}: ${r.reason.split(':')[0]}`)).toEqual([
    'Wren Alder, Seller 1: Signed',
    'Odile Farrant: Changed while on its way',
    'Callum Alder, Seller 2: Signed',
    'Wren Alder, Seller 1: Signed',
    'Tobias Mercer, Seller 3: Signed',
    'Towpath & Vane Realty: Executed',
  ]);
});

test('the calendar nudges only whom the packet waits for, warns, lapses; an extension takes it up again', async () => {
  const zone = 'America/New_York';
  const day = (n: number) =>
    new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(new Date(server.ctx.clock.now().getTime() + n * DAY));
  const last = day(5);
  const { packet } = await sendPacket(
    [{ name: 'Wren Alder' }, { name: 'Tobias Mercer' }],
    [{ names: ['Wren'] }, { names: ['Tobias'] }],
    [
      {
        op: 'set',
        field: 'schedule',
        value: { lastDay: last, warnDays: 1, nudge: { first: 2, every: 10, most: 3, businessDays: false } },
      },
    ],
  );
  const forward = async (days: number) => {
    for (let i = 0; i < days; i++) {
      server.ctx.clock.forward(DAY);
      await runCalendar(server.ctx);
      await runCalendar(server.ctx);
    }
  };
  const token = await server.tokenFor(packet.id, 'Wren Alder');
  await forward(3);
  const kinds = async () =>
    (await messagesOf(packet.id)).filter((m) => m.toName !== 'Odile Farrant').map((m) => m.kind);
  expect(await kinds()).toEqual(['nudge', 'ask']);
  await forward(2);
  expect(await kinds()).toEqual(['warning', 'nudge', 'ask']);
  expect((await look(packet.id)).status).toBe('at_gate');
  await forward(1);
  expect((await look(packet.id)).status).toBe('lapsed');
  const gone = await statusOf(token);
  expect([gone.status, gone.body.detail]).toEqual([410, expect.stringContaining('last day')]);
  const late = await server.call('changePacket', {
    params: { packetId: packet.id },
    body: { type: 'extend', lastDay: last },
  });
  expect(late.status).toBe(422);
  await change(packet.id, { type: 'extend', lastDay: day(4) });
  await signAll(tokenIn(await newest(packet.id, 'Wren Alder', 'extended')), 'Wren Alder');
  expect((await look(packet.id)).sent!.gate).toBe(1);
});

test('people, documents and gates are added ahead; a packet is taken back into a new version', async () => {
  const { packet, deal } = await sendPacket(
    [{ name: 'Wren Alder' }, { name: 'Tobias Mercer' }],
    [{ names: ['Wren'] }, { names: ['Tobias'] }],
  );
  const documentId = packet.draft.documents[0]!.id;
  let now = await change(packet.id, {
    type: 'add_party',
    name: 'Callum Alder',
    email: 'callum@example.com',
    phone: null,
    side: 'seller',
    act: 'sign',
    after: 0,
    documentIds: [documentId],
    initials: true,
  });
  const plan = now.sent!.plan;
  expect(plan.gates.map((g) => g.partyIds.map((x) => plan.parties.find((p) => p.id === x)!.name))).toEqual([
    ['Wren Alder'],
    ['Callum Alder'],
    ['Tobias Mercer'],
  ]);
  const own = plan.marks.filter((m) => m.partyId === plan.parties.find((p) => p.name === 'Callum Alder')!.id);
  expect(own.map((m) => m.kind).sort()).toEqual(['date_signed', 'initials', 'initials', 'signature']);
  const extra = await server.uploadReady(deal.id, 'addendum.pdf', await paper({ pages: 1 }));
  now = await change(packet.id, {
    type: 'add_document',
    documentId: extra.id,
    partyIds: [deal.parties.find((p) => p.name === 'Tobias Mercer')!.id],
  });
  expect(now.sent!.plan.documents).toHaveLength(2);
  // Wren's gate was open already: the new document is not for her.
  const token = await server.tokenFor(packet.id, 'Wren Alder');
  expect((await server.ok<SigningView>('signing', { params: { token }, as: 'nobody' })).documents).toHaveLength(1);
  const turned = [now.sent!.plan.gates[0]!, now.sent!.plan.gates[2]!, now.sent!.plan.gates[1]!];
  now = await change(packet.id, { type: 'set_path', gates: turned });
  expect(now.sent!.plan.gates.map((g) => g.id)).toEqual(turned.map((g) => g.id));
  const behind = await server.call('changePacket', {
    params: { packetId: packet.id },
    body: { type: 'set_path', gates: [...turned].reverse() },
  });
  expect(behind.status).toBe(422);
  const draft = await server.ok<PacketView>('newVersion', {
    params: { packetId: packet.id },
    body: { reason: 'The price changed' },
  });
  expect(draft.draft.replaces).toEqual({ packetId: packet.id, version: 2 });
  // It begins where the packet stood: who and what was added under way is in it.
  expect(draft.draft.parties.map((p) => p.name)).toContain('Callum Alder');
  expect(draft.draft.documents).toHaveLength(2);
  expect(draft.draft.gates).toEqual(turned);
  expect(draft.draft.marks.filter((m) => own.some((o) => o.id === m.id))).toHaveLength(own.length);
  expect((await look(packet.id)).kin).toEqual([{ id: draft.id, name: 'Papers', how: 'new_version' }]);
  expect((await newest(packet.id, 'Wren Alder', 'new_version')).bodyText).toContain('The price changed');
  expect((await statusOf(token)).status).toBe(410);
});

test('what somebody has signed so far can be had at any time, also after another has finished meanwhile', async () => {
  const { packet } = await sendPacket(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder' }],
    [{ names: ['Wren', 'Callum'] }],
  );
  const documentId = packet.draft.documents[0]!.id;
  const wren = await server.tokenFor(packet.id, 'Wren Alder');
  const words = async () => {
    const file = path.join(dir, 'so-far.pdf');
    const got = await server.call('signingFile', { params: { token: wren, documentId }, as: 'nobody' });
    writeFileSync(file, new Uint8Array(got.raw));
    return execFileSync('pdftotext', ['-f', '1', '-l', '1', file, '-']).toString();
  };
  expect(await words()).not.toMatch(/\bWA\b/);
  // The first place only: her initials on page 1.
  await server.sign(wren, typedHand('Wren Alder', 'WA'), 1);
  expect(await words()).toMatch(/\bWA\b/);
  await signAll(await server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  await server.until(packet.id, (p) => p.sent!.revisions.length === 1);
  const both = await words();
  expect([/\bWA\b/.test(both), /\bCA\b/.test(both)]).toEqual([true, true]);
});

test('any one of several at a gate is enough; the others are told', async () => {
  const { packet } = await sendPacket(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder' }],
    [{ names: ['Wren', 'Callum'], need: 'any' }],
  );
  expect((await look(packet.id)).sent!.holdUp.sentence).toBe('Waiting for any one of Wren and Callum.');
  await signAll(await server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  const now = await look(packet.id);
  expect([now.status, now.sent!.parties.map((p) => p.status)]).toEqual(['executed', ['excused', 'done']]);
  expect(now.sent!.ledger.done).toBe(now.sent!.ledger.total);
  expect((await messagesOf(packet.id)).map((m) => m.kind)).toContain('excused');
});

test('a member who is a party signs from the application; nobody else can open that ceremony', async () => {
  const { member } = await server.ok<SessionView>('session');
  const { packet, id } = await sendPacket(
    [{ name: 'Odile Farrant', more: { memberId: member!.id } }, { name: 'Wren Alder' }],
    [{ names: ['Odile', 'Wren'] }],
  );
  const own = (partyId: string) =>
    server.call<{ token: string }>('ownPass', { params: { packetId: packet.id, partyId } });
  expect((await own(id('Wren'))).status).toBe(403);
  const host = await server.call('hostParty', { params: { packetId: packet.id, partyId: id('Wren') } });
  expect(host.status).toBe(403);
  const view = await signAll((await own(id('Odile'))).body.token, 'Odile Farrant');
  expect(view.mine).toBe('done');
});

test('a late signing round: old seals stay valid, new marks are free of print, one file', async () => {
  const { packet } = await sendPacket([{ name: 'Wren Alder' }], [{ names: ['Wren'] }]);
  await signAll(await server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  const [first] = await sealed(packet.id);
  const late = await server.ok<PacketView>('lateRound', {
    params: { packetId: packet.id },
    body: { documentIds: [packet.draft.documents[0]!.id] },
  });
  const doc = await server.ready(late.dealId, late.draft.documents[0]!.id);
  expect(doc.pages.length).toBeGreaterThan(2);
  // Its pages are not to be changed: that would break the seals.
  const compose = await server.call('composeDocument', {
    params: { dealId: late.dealId },
    body: { name: 'Less', parts: [{ documentId: doc.id, page: 1 }] },
  });
  expect(compose.status).toBe(422);
  const trustee: PacketParty = {
    id: 'trustee',
    name: 'Theo Trustee',
    email: 'theo@example.com',
    phone: null,
    side: 'seller',
    ordinal: 2,
    act: 'sign',
    ink: 1,
  };
  await server.edit(late.id, [
    { op: 'put', list: 'parties', item: trustee },
    { op: 'put', list: 'gates', item: { id: 'g', partyIds: ['trustee'] } },
    mark('ts', doc.id, 2, 'signature', 'trustee', { x: 330, y: 600, w: 160, h: 26 }),
    {
      op: 'put',
      list: 'rules',
      item: { id: 'r', documentId: doc.id, partyIds: ['trustee'], anchor: { fx: 1, fy: 1 }, except: [], moved: [] },
    },
  ]);
  const sent = await server.send(late.id);
  // What is new stands clear of all that is printed and signed already, on every page of the old record too.
  const packed = await server.ok<PackedFacts>('documentFacts', { params: { documentId: doc.id } });
  const { pages } = unpackFacts(doc.id, doc.name, packed);
  const made = sent.sent!.plan.marks.filter((m) => m.ruleId);
  expect(made).toHaveLength(doc.pages.length);
  for (const m of made) expect([m.page, new FreeSpace(pages[m.page - 1]!).isFree(m.rect)]).toEqual([m.page, true]);
  await signAll(await server.tokenFor(sent.id, 'Theo Trustee'), 'Theo Trustee');
  const [second] = await sealed(sent.id);
  expect(second!.subarray(0, first!.length).equals(first!)).toBe(true);
  const check = verifySealed(second!);
  expect(check.why).toBe('');
  expect(check.revisions.map((r) => r.name)).toEqual([
    'Wren Alder, Seller 1',
    'Towpath & Vane Realty',
    'Theo Trustee, Seller 2',
    'Towpath & Vane Realty',
  ]);
  const file = path.join(dir, 'late.pdf');
  writeFileSync(file, new Uint8Array(second!));
  const sig = execFileSync('pdfsig', ['-nocert', file]).toString();
  expect(sig.match(/Signature is Valid/g)).toHaveLength(4);
  for (const packetId of [packet.id, sent.id]) {
    const chain = verifyChain((await server.call('chain', { params: { packetId } })).raw.toString());
    if (!chain.whole) throw new Error(chain.why);
    if (packetId === sent.id) expect(disagreements(check, chain)).toEqual([]);
  }
});

test('a hand from a photo: the paper is gone, only the own picture can be used, kept only if said', async () => {
  const { packet } = await sendPacket([{ name: 'Wren Alder' }], [{ names: ['Wren'] }]);
  const token = await server.tokenFor(packet.id, 'Wren Alder');
  const ink = (w: number, h: number) =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><defs><linearGradient id="g"><stop offset="0" stop-color="#fffbe8"/><stop offset="1" stop-color="#b9b2a0"/></linearGradient></defs><rect width="100%" height="100%" fill="url(#g)"/><path d="M${w * 0.2} ${h * 0.6} C${w * 0.3} ${h * 0.1}, ${w * 0.4} ${h * 0.9}, ${w * 0.5} ${h * 0.4} S${w * 0.7} ${h * 0.8}, ${w * 0.8} ${h * 0.3}" stroke="#1c2a6b" stroke-width="${w / 60}" fill="none"/></svg>`,
      ),
    )
      .jpeg()
      .toBuffer();
  const add = async (bytes: Buffer, name = 'hand.jpg') =>
    server.post<{ sha256: string; width: number; height: number }>('addPicture', { token }, name, bytes);
  const signature = await add(await ink(900, 400));
  expect(signature.status).toBe(200);
  const png = (await server.call('signingPicture', { params: { token, sha256: signature.body.sha256 }, as: 'nobody' }))
    .raw;
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  let clear = 0;
  for (let i = 3; i < data.length; i += 4) if (data[i] === 0) clear++;
  // Cut to the writing, and all but the stroke is clear.
  expect(info.width).toBeLessThan(700);
  expect(clear / (info.width * info.height)).toBeGreaterThan(0.8);
  expect((await add(Buffer.from('not a picture'))).status).toBe(422);
  expect(
    (
      await add(
        await sharp({ create: { width: 300, height: 200, channels: 3, background: '#fff' } })
          .png()
          .toBuffer(),
      )
    ).status,
  ).toBe(422);
  await server.ok('agree', { params: { token }, body: { agreement: '2 (en)' }, as: 'nobody' });
  const hand = (sha256: string) => ({
    form: 'picture',
    signature: { ...signature.body, sha256 },
    initials: signature.body,
    initialsText: 'WA',
    keep: true,
  });
  const document = packet.sent!.plan.documents[0]!;
  const stolen = await server.call('setHand', { params: { token }, body: hand(document.sha256), as: 'nobody' });
  expect(stolen.status).toBe(404);
  await server.ok('setHand', { params: { token }, body: hand(signature.body.sha256), as: 'nobody' });
  await signAll(token, 'Wren Alder');
  const [pdf] = await sealed(packet.id);
  writeFileSync(path.join(dir, 'picture.pdf'), new Uint8Array(pdf!));
  expect(execFileSync('pdfimages', ['-list', path.join(dir, 'picture.pdf')]).toString()).toMatch(/smask/);
  // Kept for the same person's next packet; another with the same mailbox does not see it.
  const next = await sendPacket(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder', email: 'wren@example.com' }],
    [{ names: ['Wren', 'Callum'] }],
  );
  const kept = async (name: string) =>
    (
      await server.ok<SigningView>('signing', {
        params: { token: await server.tokenFor(next.packet.id, name) },
        as: 'nobody',
      })
    ).keptHand;
  expect((await kept('Wren Alder'))?.form).toBe('picture');
  expect(await kept('Callum Alder')).toBeNull();
});
