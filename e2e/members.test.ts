/** A second member, by hand in real Chromium: invited, sends a packet, is disabled while it is out; it goes on under another. */
import type { MessageSummary, PacketView, SigningView } from '@gatepath/contract';
import { findings } from './axe';
import { byTestId, eventually, openPage, PHONE, settled, signIn, tap, textOf, type } from './browser';
import { MEMBER } from './office';
import { finish, signThrough } from './client';
import { Stage } from './stage';
import { paper } from '../server/test/papers';

jest.setTimeout(300_000);

let stage: Stage;
beforeAll(async () => {
  stage = await Stage.set();
});
afterAll(() => stage?.end());

const INES = { name: 'Ines Marsh', email: 'ines@example.com', password: 'a password of hers' };

/** Returns the path of the link in the newest message of a kind. */
async function linkOf(kind: string): Promise<string> {
  const { items } = await stage.office.call<{ items: MessageSummary[] }>('GET', '/api/mailroom?limit=100');
  return new URL(items.find((m) => m.kind === kind)!.link!).pathname;
}

test('a member is invited, sends a packet, is disabled while it is out; the packet goes on and her calendar is gone', async () => {
  const { server, wide, browser, office } = stage;
  await wide.goto(`${server.url}/firm`);
  await tap(wide, 'invite');
  await type(wide, 'field-name', INES.name);
  await type(wide, 'field-email', INES.email);
  await tap(wide, 'send-invitation');
  await wide.waitForSelector(byTestId(`invited-${INES.email}`));
  await settled(wide);
  expect(await findings(wide)).toEqual([]);

  const hers = await openPage(browser, PHONE);
  await hers.goto(server.url + (await linkOf('invitation')));
  await type(hers, 'field-password', INES.password);
  await settled(hers);
  expect(await findings(hers)).toEqual([]);
  await tap(hers, 'join');
  await hers.waitForSelector(byTestId('today-sentence'));

  // She sends a packet and follows her deals in her calendar.
  const api = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await hers.evaluate(
      async (m: string, p: string, b: string | null) => {
        const r = await fetch(p, {
          method: m,
          ...(b === null ? {} : { headers: { 'content-type': 'application/json' }, body: b }),
        });
        return { status: r.status, text: await r.text() };
      },
      method,
      path,
      body === undefined ? null : JSON.stringify(body),
    );
    if (answer.status >= 300) throw new Error(`${method} ${path}: ${answer.status} ${answer.text}`);
    return JSON.parse(answer.text) as T;
  };
  const feed = await api<{ url: string }>('POST', '/api/session/feed');
  const calendar = async () => (await fetch(server.url + new URL(feed.url).pathname)).status;
  expect(await calendar()).toBe(200);
  const deal = await office.deal('14 Lantern Row', [{ side: 'seller', name: 'Wren Alder', email: 'wren@example.com' }]);
  const doc = await office.paper(deal.id, 'form.pdf', await paper({ pages: 1 }));
  const draft = await api<PacketView>('POST', `/api/deals/${deal.id}/packets`, {
    name: 'Papers',
    documentIds: [doc.id],
  });
  const wren = deal.parties[0]!.id;
  await api('POST', `/api/packets/${draft.id}/edits`, {
    edits: [
      {
        op: 'put',
        list: 'marks',
        item: {
          id: 's',
          documentId: doc.id,
          page: 1,
          kind: 'signature',
          partyId: wren,
          rect: { x: 72, y: 640, w: 160, h: 26 },
          required: true,
        },
      },
    ],
  });
  const ready = await api<PacketView>('GET', `/api/packets/${draft.id}`);
  await api('POST', `/api/packets/${draft.id}/send`, { version: ready.version, despiteWarnings: true });

  // She leaves while it is out.
  await wide.goto(`${server.url}/firm`);
  await tap(wide, `disable-${INES.email}`);
  await settled(wide);
  await tap(wide, 'hand-over');
  await wide.waitForFunction(
    (id: string) => document.querySelector(`[data-testid="${id}"]`)?.textContent?.includes('Disabled'),
    {},
    `member-${INES.email}`,
  );
  expect(await textOf(wide, `member-${INES.email}`)).toContain('Odile Farrant took over');
  await hers.goto(`${server.url}/today`);
  await hers.waitForSelector(byTestId('field-password'));
  expect(await calendar()).toBe(404);

  // The client signs; the packet is executed under who took over.
  const { items } = await office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${draft.id}`);
  const client = await openPage(browser, PHONE);
  await client.goto(
    new URL(items.find((m) => m.toName === 'Wren Alder')!.link!).href.replace(/^https?:\/\/[^/]+/, server.url),
  );
  await signThrough(client);
  await finish(client);
  const token = new URL(client.url()).pathname.split('/').pop()!;
  const view = await office.call<SigningView>('GET', `/api/signing/${token}`);
  expect(view.myTurn).toBe(false);
  // Everybody is told once the copies are sealed.
  const after = await eventually(async () => {
    const found = await office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${draft.id}`);
    expect(found.items.some((m) => m.kind === 'notice_executed' && m.toEmail === MEMBER.email)).toBe(true);
    return found;
  });
  expect(after.items.filter((m) => m.toEmail === INES.email)).toEqual([]);
  expect(stage.errors).toEqual([]);
});

test('a forgotten password is chosen anew by the link, and a wrong link says so', async () => {
  const { server, browser } = stage;
  const page = await openPage(browser, PHONE);
  await page.goto(`${server.url}/sign-in`);
  await tap(page, 'forgot');
  await type(page, 'field-email', MEMBER.email);
  await settled(page);
  expect(await findings(page)).toEqual([]);
  await tap(page, 'send-reset');
  await page.waitForFunction(() => document.body.textContent!.includes('Ask an owner for the link'));
  await page.goto(server.url + (await linkOf('new_password')));
  await type(page, 'field-password', 'another long password');
  await tap(page, 'reset');
  await tap(page, 'to-sign-in');
  await signIn(page, server.url, MEMBER.email, 'another long password');
  await page.goto(`${server.url}/join/nobody-was-ever-invited-so`);
  await page.waitForFunction(() => document.body.textContent!.includes('no longer works'));
});
