/** Links, second steps, questions, handing over, hands: what clients meet, against the real server. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { tokenIn, Way } from '../test/way';

jest.setTimeout(180_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-way-'));
let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

test('a one-time code and a code told in person let in; wrong ones lock out until the sender says otherwise', async () => {
  const { packet, id } = await way.send(
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
    const token = await way.server.tokenFor(packet.id, name);
    const before = await way.server.call('signing', { params: { token }, as: 'nobody' });
    expect(before.body.step).toMatchObject({ kind, sent: false });
    expect(before.body.documents).toEqual([]);
    expect(before.body.packetName).toBe('');
    // What is asked for can be read in another language first.
    const inSpanish = await way.server.ok('setLanguage', {
      params: { token },
      body: { language: 'es' },
      as: 'nobody',
    });
    expect([inSpanish.language, inSpanish.step?.kind]).toEqual(['es', kind]);
    const page = await way.server.call('signingPage', {
      params: { token, documentId: packet.draft.documents[0]!.id, page: 1 },
      as: 'nobody',
    });
    expect(page.status).toBe(403);
    await way.server.ok('sendCode', { params: { token }, as: 'nobody' });
    expect((await way.server.call('sendCode', { params: { token }, as: 'nobody' })).status).toBe(429);
    const m = await way.newest(packet.id, name, 'code');
    expect(m.channel).toBe(kind === 'phone' ? 'text' : 'email');
    const code = /\d{6}/.exec(m.bodyText)![0];
    const given = await way.server.call('giveCode', { params: { token }, body: { code }, as: 'nobody' });
    expect([given.status, given.body.step]).toEqual([200, null]);
    expect(given.body.documents).toHaveLength(1);
    // Another browser, without the proof, is asked again; and the code works once.
    expect((await way.server.ok('signing', { params: { token }, as: 'nobody' })).step).not.toBeNull();
    const again = await way.server.call('giveCode', { params: { token }, body: { code }, as: 'nobody' });
    expect(again.status).toBe(422);
  }
  const token = await way.server.tokenFor(packet.id, 'Priya Nair');
  const give = (code: string) => way.server.call('giveCode', { params: { token }, body: { code }, as: 'nobody' });
  expect((await give('heron12')).status).toBe(200);
  for (let left = 4; left > 0; left--)
    expect((await give('swan')).problem.detail).toContain(left === 1 ? 'one try left' : `${left} tries left`);
  expect((await give('swan')).status).toBe(409);
  expect((await give('heron12')).status).toBe(409);
  expect((await way.look(packet.id)).sent!.parties[2]!.locked).toBe(true);
  await way.change(packet.id, { type: 'unlock', partyId: id('Priya') });
  expect((await give('HERON 12')).status).toBe(200);
  // Neither the code nor anybody's address is in the exported chain's plan or in what clients see.
  const chain = (await way.server.call('chain', { params: { packetId: packet.id } })).raw.toString();
  expect(chain.toLowerCase()).not.toContain('heron');
  const seen = JSON.stringify(await way.server.ok('signing', { params: { token }, as: 'nobody' }));
  expect(seen).not.toMatch(/wren@example|555-0101/);
});

test('who has a phone and no email is written to there, in short', async () => {
  const { packet } = await way.send([{ name: 'Wren Alder', email: '', phone: '555-0111' }], [{ names: ['Wren'] }]);
  const ask = await way.newest(packet.id, 'Wren Alder');
  expect([ask.channel, ask.toPhone, ask.bodyText.includes(ask.link!)]).toEqual(['text', '555-0111', true]);
  await way.server.ok('withdrawPacket', { params: { packetId: packet.id }, body: { reason: 'Not now' } });
  expect((await way.newest(packet.id, 'Wren Alder')).bodyText).toBe(
    'Towpath & Vane Realty: Withdrawn: Papers, 14 Lantern Row',
  );
});

test('a question is asked and answered, and handing over leaves a trail', async () => {
  const { packet } = await way.send(
    [{ name: 'Wren Alder' }],
    [{ names: ['Wren'] }],
    [{ op: 'set', field: 'handOver', value: true }],
  );
  const token = await way.server.tokenFor(packet.id, 'Wren Alder');
  const ask = () =>
    way.server.ok('askQuestion', {
      params: { token },
      body: { actId: 'question-1', text: 'Is the shed included?' },
      as: 'nobody',
    });
  await ask();
  // Sent again after a lost answer it is the same question.
  expect((await ask()).questions).toHaveLength(1);
  expect((await way.newest(packet.id, 'Odile Farrant')).bodyText).toContain('Is the shed included?');
  await way.change(packet.id, { type: 'answer', questionId: 'question-1', text: 'Yes, with its roof.' });
  expect((await way.newest(packet.id, 'Wren Alder', 'answer')).bodyText).toContain('Yes, with its roof.');
  const view = await way.server.ok('signing', { params: { token }, as: 'nobody' });
  expect(view.questions[0]!.answer!.text).toBe('Yes, with its roof.');
  const over = (body: object) => way.server.call('handOver', { params: { token }, body, as: 'nobody' });
  expect((await over({ name: 'Bo Vane', email: 'nowhere', reason: 'ill' })).status).toBe(422);
  expect((await over({ name: 'Bo Vane', email: 'bo@example.com', reason: 'I am in hospital' })).status).toBe(204);
  expect((await way.statusOf(token)).status).toBe(404);
  const bo = tokenIn(await way.newest(packet.id, 'Bo Vane', 'handed'));
  await way.signAll(bo, 'Bo Vane');
  const [pdf] = await way.sealed(packet.id);
  writeFileSync(path.join(dir, 'over.pdf'), new Uint8Array(pdf!));
  const record = execFileSync('pdftotext', ['-layout', path.join(dir, 'over.pdf'), '-']).toString();
  expect(record).toMatch(/Handed over by Wren Alder/);
  expect(record).toContain('I am in hospital');
});

test('a hand from a photo: the paper is gone, only the own picture can be used, kept only if said', async () => {
  const { packet } = await way.send([{ name: 'Wren Alder' }], [{ names: ['Wren'] }]);
  const token = await way.server.tokenFor(packet.id, 'Wren Alder');
  const ink = (w: number, h: number) =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><defs><linearGradient id="g"><stop offset="0" stop-color="#fffbe8"/><stop offset="1" stop-color="#b9b2a0"/></linearGradient></defs><rect width="100%" height="100%" fill="url(#g)"/><path d="M${w * 0.2} ${h * 0.6} C${w * 0.3} ${h * 0.1}, ${w * 0.4} ${h * 0.9}, ${w * 0.5} ${h * 0.4} S${w * 0.7} ${h * 0.8}, ${w * 0.8} ${h * 0.3}" stroke="#1c2a6b" stroke-width="${w / 60}" fill="none"/></svg>`,
      ),
    )
      .jpeg()
      .toBuffer();
  const add = async (bytes: Buffer, name = 'hand.jpg') => way.server.post('addPicture', { token }, name, bytes);
  const signature = await add(await ink(900, 400));
  expect(signature.status).toBe(200);
  const png = (
    await way.server.call('signingPicture', { params: { token, sha256: signature.body.sha256 }, as: 'nobody' })
  ).raw;
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
  await way.server.ok('agree', { params: { token }, body: { agreement: '2 (en)' }, as: 'nobody' });
  const hand = (sha256: string) => ({
    form: 'picture',
    signature: { ...signature.body, sha256 },
    initials: signature.body,
    initialsText: 'WA',
    keep: true,
  });
  const document = packet.sent!.plan.documents[0]!;
  const stolen = await way.server.call('setHand', { params: { token }, body: hand(document.sha256), as: 'nobody' });
  expect(stolen.status).toBe(404);
  await way.server.ok('setHand', { params: { token }, body: hand(signature.body.sha256), as: 'nobody' });
  await way.signAll(token, 'Wren Alder');
  const [pdf] = await way.sealed(packet.id);
  writeFileSync(path.join(dir, 'picture.pdf'), new Uint8Array(pdf!));
  expect(execFileSync('pdfimages', ['-list', path.join(dir, 'picture.pdf')]).toString()).toMatch(/smask/);
  // Kept for the same person's next packet; another with the same mailbox does not see it.
  const next = await way.send(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder', email: 'wren@example.com' }],
    [{ names: ['Wren', 'Callum'] }],
  );
  const kept = async (name: string) =>
    (
      await way.server.ok('signing', {
        params: { token: await way.server.tokenFor(next.packet.id, name) },
        as: 'nobody',
      })
    ).savedHand;
  expect((await kept('Wren Alder'))?.form).toBe('picture');
  expect(await kept('Callum Alder')).toBeNull();
});
