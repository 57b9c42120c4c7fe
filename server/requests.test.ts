/** Tests that request bodies are limited before they are validated, and that addresses and folders leak nothing. */
import { statSync } from 'node:fs';
import { request as send } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { liveQuery } from '@gatepath/contract';
import { TOPIC_KINDS } from '@gatepath/contract/limits';
import { isHour } from '@gatepath/core/calendar';
import JSZip from 'jszip';
import { TestServer } from './test/harness';
import { serverAtNoon, type Way } from './test/way';

jest.setTimeout(180_000);

let way: Way;
let server: TestServer;
serverAtNoon((started) => {
  way = started;
  server = started.server;
});

describe('requests', () => {
  const timed = async (work: () => Promise<{ status: number }>) => {
    const start = performance.now();
    const { status } = await work();
    return { status, ms: performance.now() - start };
  };
  test('a list that is too long is refused before its items are looked at, and faults do not add up', async () => {
    const deal = await server.deal('23 Lantern Row');
    const draft = await server.ok('newPacket', { params: { dealId: deal.id }, body: { name: 'Papers' } });
    const params = { packetId: draft.id };
    const bodies = [
      { edits: Array.from({ length: 30_000 }, () => ({})) },
      { edits: Array.from({ length: 400 }, () => ({ op: 'put', list: 'marks', item: { texts: 1 } })) },
    ];
    for (const body of bodies) {
      const { status, ms } = await timed(() => server.call('editPacket', { params, body }));
      expect([422, 413]).toContain(status);
      // These once took 15 seconds and more.
      expect(ms).toBeLessThan(3_000);
    }
    const facts = Array.from({ length: 8_000 }, () => null);
    const { status, ms } = await timed(() => server.call('setOwnFacts', { body: { facts } }));
    expect([[422, 413].includes(status), ms < 3_000]).toEqual([true, true]);
  });

  test('keys that every object has, and texts that are objects, are refused and not stumbled over', async () => {
    const odd: unknown[] = [
      { email: { toString: 1 }, password: 'x' },
      { email: { valueOf: 1, length: 3 }, password: 'x' },
      { toString: 1 },
      { email: 'a@example.com', password: 'x', constructor: 1 },
      { email: 'a@example.com', password: 'x', hasOwnProperty: {} },
      { email: { match: 'x' }, password: { trim: 1 } },
      { email: [], password: [[]] },
    ];
    for (const body of odd)
      expect([JSON.stringify(body), (await server.call('signIn', { body, as: 'nobody' })).status]).toEqual([
        JSON.stringify(body),
        422,
      ]);
    const raw = await server.running.app.inject({
      method: 'POST',
      url: '/api/session',
      headers: { 'content-type': 'application/json' },
      payload: '{"email":{"toString":null,"isMember":1},"password":"x"}',
    });
    expect(raw.statusCode).toBe(422);
  });

  test('a form that is never closed is told so', async () => {
    await server.running.app.listen({ port: 0, host: '127.0.0.1' });
    const { port } = server.running.app.server.address() as AddressInfo;
    const head = '--x\r\nContent-Disposition: form-data; name="file"; filename="a.pdf"\r\n\r\n%PDF-1.4';
    const status = await new Promise<number>((resolve, reject) => {
      const headers = { 'content-type': 'multipart/form-data; boundary=x' };
      const r = send({ port, host: '127.0.0.1', path: '/api/check', method: 'POST', headers }, (answer) => {
        answer.resume();
        resolve(answer.statusCode ?? 0);
      });
      r.on('error', reject);
      r.end(head);
    });
    expect([status >= 400, status < 500]).toEqual([true, true]);
  });

  test('an address before those our own proxies put there is not believed', async () => {
    const open = await TestServer.start({ env: { TRUST_PROXY: '1' } });
    try {
      const tries = async (n: number, forwarded: (i: number) => string) => {
        const out: number[] = [];
        for (let i = 0; i < n; i++)
          out.push(
            (
              await open.call('signIn', {
                body: { email: 'odile@example.com', password: 'wrong' },
                headers: { 'x-forwarded-for': forwarded(i) },
                as: 'nobody',
              })
            ).status,
          );
        return out;
      };
      const answers = await tries(10, (i) => `8.8.8.${i}, 203.0.113.7`);
      expect(answers.slice(0, 8)).toEqual(Array.from({ length: 8 }, () => 401));
      expect(answers.slice(8)).toEqual([429, 429]);
    } finally {
      await open.stop();
    }
  });

  test('a page of the same host under another scheme is another site', async () => {
    const post = (origin: string) =>
      server.call('signIn', {
        body: { email: 'odile@example.com', password: 'long enough 1' },
        headers: { origin, host: 'gate.example.com' },
        as: 'nobody',
      });
    expect((await post('http://gate.example.com')).status).toBe(200);
    expect((await post('https://gate.example.com')).status).toBe(403);
    expect((await post('null')).status).toBe(403);
  });

  test('every topic that a screen hears of can be heard', async () => {
    // Screens cannot subscribe to other topics: their type allows only these.
    const heard = TOPIC_KINDS.map((kind) => `${kind}:a`);
    for (const topics of [...heard, heard.join(',')]) {
      const answer = await server.call('live', { query: { topics: `${topics},` } });
      expect([topics, answer.status]).toEqual([topics, 422]);
    }
    for (const topics of [...heard, heard.join(',')]) expect(liveQuery.isValidSync({ topics })).toBe(true);
  });

  test('an hour that the clocks leave out is no hour to send at', async () => {
    expect(isHour('2027-03-14', 2, 'America/New_York')).toBe(false);
    expect(isHour('2027-03-14', 3, 'America/New_York')).toBe(true);
    expect(isHour('2027-11-07', 1, 'America/New_York')).toBe(true);
  });

  test('pictures of a ceremony stay in no browser; nor can anybody else on this machine read what is stored', async () => {
    const sent = await way.send([{ name: 'Ada Byron' }], [{ names: ['Ada'] }]);
    const token = await server.tokenFor(sent.packet.id, 'Ada Byron');
    const documentId = sent.packet.sent!.plan.documents[0]!.id;
    const page = await server.running.app.inject({ url: `/api/signing/${token}/documents/${documentId}/pages/1` });
    expect([page.statusCode, page.headers['cache-control']]).toEqual([200, 'private, no-store']);
    const mode = (file: string) => statSync(file).mode & 0o777;
    expect(mode(server.dir)).toBe(0o700);
    for await (const sha256 of server.ctx.files.all()) {
      const file = server.ctx.files.fileOf(sha256);
      expect([mode(file), mode(path.dirname(file))]).toEqual([0o600, 0o700]);
    }
  });

  test('a sheet of two kilobytes that names a row no sheet has is refused at once', async () => {
    const deal = await server.deal('24 Lantern Row');
    const sheetOf = async (xml: string) => {
      const zip = new JSZip();
      const ns = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
      const rel = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
      const pkg = 'http://schemas.openxmlformats.org/package/2006';
      const type = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
      zip.file(
        '[Content_Types].xml',
        `<Types xmlns="${pkg}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="${type}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${type}.worksheet+xml"/></Types>`,
      );
      zip.file(
        '_rels/.rels',
        `<Relationships xmlns="${pkg}/relationships"><Relationship Id="r1" Type="${rel}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
      );
      zip.file(
        'xl/workbook.xml',
        `<workbook ${ns} xmlns:r="${rel}"><sheets><sheet name="A" sheetId="1" r:id="r1"/></sheets></workbook>`,
      );
      zip.file(
        'xl/_rels/workbook.xml.rels',
        `<Relationships xmlns="${pkg}/relationships"><Relationship Id="r1" Type="${rel}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
      );
      zip.file('xl/worksheets/sheet1.xml', `<worksheet ${ns}>${xml}</worksheet>`);
      return zip.generateAsync({ type: 'uint8array' });
    };
    const cell = (row: string, ref: string) =>
      `<sheetData><row r="${row}"><c r="${ref}"><v>1</v></c></row></sheetData>`;
    for (const xml of [
      cell('999999999', 'A999999999'),
      cell('1', 'A999999999'),
      `<cols><col min="1" max="1000000000" width="9"/></cols>${cell('1', 'A1')}`,
      cell('1', 'ZZZZZ1'),
    ]) {
      const { status, ms } = await timed(async () => server.upload(deal.id, 'rents.xlsx', await sheetOf(xml)));
      expect([xml.slice(0, 40), status, ms < 20_000]).toEqual([xml.slice(0, 40), 422, true]);
    }
    const fine = await server.upload(deal.id, 'rents.xlsx', await sheetOf(cell('2', 'B2')));
    expect(fine.status).toBe(200);
  });
});
