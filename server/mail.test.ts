/** Messages: into the mailroom, or through a real mail server that speaks SMTP. */
import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import type { MessageView, PacketView } from '@gatepath/contract';
import { ENGLISH } from '@gatepath/core/words';
import { compose } from './mail/messages';
import { waitForDueWork } from './schedule/calendar';
import { TestServer, typedHand } from './test/harness';
import { paper } from './test/papers';
import { markEdit } from './test/way';

jest.setTimeout(120_000);

async function sendPacket(server: TestServer): Promise<PacketView> {
  const deal = await server.ok('newDeal', {
    body: {
      kind: 'tenancy',
      address: 'Unit 3B',
      parties: [{ side: 'tenant', name: 'Żofia Łącka', email: 'zofia@example.com' }],
    },
  });
  const doc = await server.uploadReady(deal.id, 'lease.pdf', await paper({ pages: 1 }));
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Lease', documentIds: [doc.id] },
  });
  await server.edit(packet.id, [
    { op: 'set', field: 'subject', value: 'Please sign\r\nBcc: everyone@example.com' },
    markEdit('s', doc.id, 1, 'signature', deal.parties[0]!.id, { x: 80, y: 690, w: 150, h: 24 }),
  ]);
  return server.send(packet.id);
}

async function firstMessage(server: TestServer, packetId: string, status: string): Promise<MessageView> {
  for (let i = 0; i < 100; i++) {
    const page = await server.ok('mailroom', { query: { packetId } });
    const m = page.items[0];
    if (m?.status === status) return server.ok('message', { params: { messageId: m.id } });
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error(`no message became ${status}`);
}

test('without a mail server messages are kept, readable, and downloadable as real mail', async () => {
  const server = await TestServer.start();
  const packet = await sendPacket(server);
  const m = await firstMessage(server, packet.id, 'kept');
  expect(m.link).toContain('/sign/');
  expect(m.bodyText).toContain(m.link);
  const eml = (await server.call('messageFile', { params: { messageId: m.id } })).raw.toString();
  expect(eml).toMatch(/^To: .*<zofia@example.com>$/m);
  expect(eml).toContain('Content-Type: text/html');
  expect(eml).not.toMatch(/^Bcc:/m);
  await server.stop();
});

/** Starts a real mail server that stores messages and refuses some mailboxes permanently. */
async function mailServer(refuses: (to: string) => boolean = () => false) {
  const received: string[] = [];
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo(address, _session, done) {
      if (refuses(address.address)) done(Object.assign(new Error('no such mailbox here'), { responseCode: 550 }));
      else done();
    },
    onData(stream, _session, done) {
      let text = '';
      stream.on('data', (d: Buffer) => (text += d.toString()));
      stream.on('end', () => {
        received.push(text);
        done();
      });
    },
  });
  await new Promise<void>((r) => smtp.listen(0, '127.0.0.1', r));
  const { port } = smtp.server.address() as AddressInfo;
  return {
    received,
    url: `smtp://127.0.0.1:${port}`,
    close: () => new Promise<void>((r) => smtp.close(() => r())),
  };
}

test('with a mail server the message arrives there, and its link is not kept here', async () => {
  const smtp = await mailServer();
  const server = await TestServer.start({ env: { SMTP_URL: smtp.url } });
  const packet = await sendPacket(server);
  const m = await firstMessage(server, packet.id, 'sent');
  expect(m.link).toBeNull();
  expect(m.bodyText).not.toContain('/sign/');
  const mail = smtp.received.join('').replace(/=\r\n/g, '').replace(/=3D/g, '=');
  expect(mail).toMatch(/\/sign\/[\w-]{32}/);
  expect(mail).toContain('zofia@example.com');
  await server.stop();
  await smtp.close();
});

test('a mailbox that does not exist marks the party and tells the sender; trying again would be in vain', async () => {
  const smtp = await mailServer((to) => to === 'zofia@example.com');
  const server = await TestServer.start({ env: { SMTP_URL: smtp.url } });
  const packet = await sendPacket(server);
  const view = await server.until(packet.id, (p) => !!p.sent?.parties[0]?.bounced);
  expect(view.sent!.parties[0]!.bounced).toContain('no such mailbox here');
  expect(view.sent!.holdUp.sentence).toBe('The message to Żofia came back. Correct the address.');
  const m = (await server.ok('mailroom', { query: { packetId: packet.id } })).items;
  expect(m.map((x) => [x.toName, x.status])).toContainEqual(['Żofia Łącka', 'returned']);
  for (let i = 0; i < 100 && !smtp.received.length; i++) await new Promise((r) => setTimeout(r, 100));
  expect(smtp.received.join()).toContain('To: Odile Farrant <odile@example.com>');
  await server.stop();
  await smtp.close();
});

test('a member is written to about what they chose, and once a morning if they wish', async () => {
  const server = await TestServer.start();
  server.toNoon();
  const notices = (n: string[], digest: boolean) => server.ok('setNotices', { body: { notices: n, digest } });
  await notices(['opened'], true);
  const packet = await sendPacket(server);
  const token = await server.tokenFor(packet.id, 'Żofia Łącka');
  await server.sign(token, typedHand('Żofia Łącka', 'ŻŁ'), 0);
  const toOdile = async () =>
    (await server.ok('mailroom', { query: {} })).items.filter((m) => m.toName === 'Odile Farrant').map((m) => m.kind);
  expect(await toOdile()).toEqual(['notice_opened']);
  server.ctx.clock.forward(24 * 3_600_000);
  await waitForDueWork(server.ctx);
  await waitForDueWork(server.ctx);
  expect(await toOdile()).toEqual(['digest', 'notice_opened']);
  await notices([], false);
  server.ctx.clock.forward(24 * 3_600_000);
  await waitForDueWork(server.ctx);
  await server.ok('finish', { params: { token }, body: { actId: 'finish-early' }, as: 'nobody' }).catch(() => null);
  expect(await toOdile()).toEqual(['digest', 'notice_opened']);
  await server.stop();
});

test('a subject names the packet and the deal, whose address it never says twice', () => {
  const subject = (packetName: string, kind: 'nudge' | 'executed' | 'ended' = 'nudge') =>
    compose(kind, ENGLISH, {
      firmName: 'Firm',
      senderName: 'Odile',
      packetName,
      dealName: '14 Weir Terrace, Tern Lock',
      toName: 'Wren',
      act: 'sign',
      documents: 'Lease',
      n: 2,
    }).subject;
  expect(subject('Listing papers')).toBe('Reminder: Listing papers, 14 Weir Terrace');
  expect(subject('14 Weir Terrace papers')).toBe('Reminder: 14 Weir Terrace papers');
  expect(subject('Listing papers', 'executed')).toContain('Listing papers, 14 Weir Terrace');
  expect(subject('Listing papers', 'ended')).toContain('Listing papers, 14 Weir Terrace');
});

test('what people typed cannot break out of a message', () => {
  const m = compose(
    'ask',
    ENGLISH,
    { firmName: 'A & B', senderName: '<b>Odile</b>', packetName: 'Papers', dealName: 'x', toName: 'Wren' },
    {
      link: 'https://gate.test/sign/abc?x="y"',
      note: '<script>alert(1)</script>',
      subject: 'One\r\nTwo: three',
    },
  );
  expect(m.subject).toBe('One Two: three');
  expect(m.html).not.toMatch(/<script>|<b>|"y"/);
  expect(m.text).toContain('<script>alert(1)</script>');
});
