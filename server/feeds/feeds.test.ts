/** Calendars, read by two readers that are not ours. */
import ICAL from 'ical.js';
import nodeIcal from 'node-ical';
import { TestServer } from '../test/harness';

jest.setTimeout(120_000);

let server: TestServer;
let dealId: string;
beforeAll(async () => {
  server = await TestServer.start();
  dealId = (await server.deal('7 Weir Terrace, “the old mill”; rear', ['Wren Alder'])).id;
  await set({ facts: { year_built: 1962 }, dates: { accepted: '2026-11-30', closing: '2027-01-04' } });
});
afterAll(() => server.stop());

const set = (body: object) => server.ok('setDeal', { params: { dealId }, body });
const fetched = async (url: string) => {
  const token = url.split('/calendar/')[1]!;
  const a = await server.call('calendar', { params: { token }, as: 'nobody' });
  return { status: a.status, text: a.raw.toString() };
};

/** Returns what both readers find, uid to day and title, after comparing them. */
function read(text: string): Map<string, { day: string; title: string; sequence: number }> {
  const whole = new ICAL.Component(ICAL.parse(text));
  const strict = new Map(
    whole.getAllSubcomponents('vevent').map((c) => {
      const e = new ICAL.Event(c);
      expect(e.startDate.isDate).toBe(true);
      return [e.uid, { day: e.startDate.toString(), title: e.summary, sequence: e.sequence }];
    }),
  );
  const loose = Object.values(nodeIcal.sync.parseICS(text)).filter((c) => c?.type === 'VEVENT');
  expect(loose).toHaveLength(strict.size);
  for (const e of loose)
    if (e?.type === 'VEVENT') {
      expect(e.datetype).toBe('date');
      expect(strict.get(e.uid)).toMatchObject({ title: e.summary });
    }
  return strict;
}

test('a deal’s days are read without complaint; a day that moves moves its event', async () => {
  const file = await server.call('dealCalendar', { params: { dealId } });
  const before = read(file.raw.toString());
  const lead = `need-sample-sale-lead_paint.${dealId}@gatepath`;
  expect(before.get(lead)).toMatchObject({
    day: '2026-12-03',
    title: 'Lead paint disclosure due, 7 Weir Terrace, “the old mill”; rear',
  });
  expect(before.get(`date-closing.${dealId}@gatepath`)).toMatchObject({ day: '2027-01-04' });
  await set({ dates: { accepted: '2026-12-02' } });
  const after = read((await server.call('dealCalendar', { params: { dealId } })).raw.toString());
  expect([...after.keys()].sort()).toEqual([...before.keys()].sort());
  expect(after.get(lead)!.day).toBe('2026-12-07');
  expect(after.get(lead)!.sequence).toBeGreaterThan(before.get(lead)!.sequence);
  for (const line of file.raw.toString().split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
});

test('behind a secret address it is anybody’s who has it; one that was changed is dead', async () => {
  const params = { dealId };
  expect((await server.ok('dealFeed', { params })).url).toBeNull();
  const { url } = await server.ok('renewDealFeed', { params });
  expect((await server.ok('dealFeed', { params })).url).toBe(url);
  expect(read((await fetched(url!)).text).size).toBeGreaterThan(3);
  const next = (await server.ok('renewDealFeed', { params })).url!;
  expect(next).not.toBe(url);
  expect((await fetched(url!)).status).toBe(404);
  expect((await fetched(next)).status).toBe(200);
  // An id without its secret, and one with another’s.
  const [id, secret] = next.split('/calendar/')[1]!.split('.');
  for (const wrong of [id!, `${id}.x`, `${id}.${secret!.slice(0, -1)}x`, `x.${secret}`])
    expect((await fetched(`/calendar/${wrong}`)).status).toBe(404);
  await server.ok('endDealFeed', { params });
  expect((await fetched(next)).status).toBe(404);
});

test('a member’s calendar holds the days of the deals they work on', async () => {
  const other = await server.deal('9 Mill Cut', ['Priya Nair']);
  await server.ok('setDeal', { params: { dealId: other.id }, body: { dates: { closing: '2027-02-01' } } });
  const { url } = await server.ok('renewOwnFeed');
  const all = read((await fetched(url!)).text);
  expect(all.get(`date-closing.${other.id}@gatepath`)?.day).toBe('2027-02-01');
  expect(all.has(`date-closing.${dealId}@gatepath`)).toBe(true);
  await server.ok('setDeal', { params: { dealId: other.id }, body: { status: 'fell_through' } });
  expect(read((await fetched(url!)).text).has(`date-closing.${other.id}@gatepath`)).toBe(false);
  await server.ok('endOwnFeed');
  expect((await fetched(url!)).status).toBe(404);
});
