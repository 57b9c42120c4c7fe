/** The activity of a deal: its own changes and the events of its packets, newest first, in sentences. */
import { activity } from '@gatepath/core/routing';
import { lastOf } from '@gatepath/core/sure';
import type { ActivityQuery, ActivityView } from '@gatepath/contract';
import type { Context } from '../context';
import { loadEvents } from '../packets/log';
import { packetsOfDeals } from '../packets/queries';
import { packetsWithDocument } from '../documents/queries';
import { eventsOf } from '../deal-records/queries';
import { dealOr404 } from '../deal-records/deals';

type Item = ActivityView['items'][number];

/** Maximum number of logs read for one answer. A deal has a few; the newest are what is asked for. */
const MOST_LOGS = 30;

/**
 * Returns one page of a deal's activity.
 *
 * @param o.partyId only what this person did or what was done about them
 * @param o.documentId only what concerns this document
 * @throws Problem `not-found`
 */
export async function dealActivity(ctx: Context, dealId: string, o: ActivityQuery): Promise<ActivityView> {
  const db = ctx.database.pool;
  await dealOr404(db, dealId);
  const before = cursorIn(o.before);
  const { partyId = null, documentId = null, limit } = o;
  const own = await eventsOf(db, { dealId, before, partyId, documentId, limit: limit + 1 });
  const items: Item[] = own.map((e) => ({
    id: e.id,
    at: e.at.toISOString(),
    sentence: e.sentence,
    packetId: null,
    packetName: null,
    partyId: e.party_id,
    documentId: e.document_id,
  }));
  const holding = documentId ? new Set((await packetsWithDocument(db, documentId)).map((p) => p.id)) : null;
  const packets = (await packetsOfDeals(db, [dealId])).filter((p) => p.sent_at && (!holding || holding.has(p.id)));
  for (const p of packets.slice(0, MOST_LOGS))
    for (const line of activity(await loadEvents(db, p.id)))
      if (!partyId || line.partyId === partyId)
        items.push({
          // As long for each, so that they are in order as texts too.
          id: `${p.id}.${String(line.seq).padStart(8, '0')}`,
          at: line.at,
          sentence: line.sentence,
          packetId: p.id,
          packetName: p.name,
          partyId: line.partyId,
          documentId: null,
        });
  const left = items.filter((i) => !before || order(i, before) > 0).sort(order);
  const shown = left.slice(0, limit);
  return { items: shown, next: left.length > limit ? `${lastOf(shown).at}/${lastOf(shown).id}` : null };
}

type Place = Pick<Item, 'at' | 'id'>;

/** Orders entries newest first, and by id within one moment, so that no entry is lost between two pages. */
const order = (a: Place, b: Place) => (a.at === b.at ? (a.id < b.id ? 1 : a.id > b.id ? -1 : 0) : a.at < b.at ? 1 : -1);

/** Returns where the previous page ended; null if the text is not one of our cursors. */
function cursorIn(text: string | undefined): Place | null {
  const [at = '', id = ''] = text?.split('/') ?? [];
  return /^\d{4}-\d{2}-\d{2}T[\d:.]{5,20}Z$/.test(at) && !Number.isNaN(Date.parse(at)) ? { at, id } : null;
}
