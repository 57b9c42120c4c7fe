/** What a binder holds, piece by piece, under names that any program can unpack. */
import { dayOf } from '@gatepath/core/calendar';
import { documentsOf, stillIn } from '@gatepath/core/routing';
import { clip, fileNameOf, sideLabel } from '@gatepath/core/text';
import { KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import type { Context } from '../context';
import { partiesOfDeal } from '../deal-records/party-queries';
import { dealOr404 } from '../deal-records/deals';
import { documentsOfDeal } from '../documents/queries';
import { packetsOfDeals } from '../packets/queries';

/** A file of the binder. */
export interface Piece {
  /** Its path within the binder. */
  path: string;
  /** Of the store by its fingerprint, or a packet's chain, written when its turn comes. */
  from: { sha256: string } | { chainOf: string };
}

/** The index as it is written: `docs/formats.md` says what each part is. */
export interface BinderIndex {
  format: 'gate-path-binder/1';
  madeAt: string;
  deal: { address: string; city: string; kind: string; status: string; people: { role: string; name: string }[] };
  executed: { path: string; name: string; packet: string; on: string; sha256: string; signedBy: string[] }[];
  originals: { path: string; name: string; type: string; sha256: string; added: string }[];
  chains: { path: string; packet: string }[];
}

/** Returns a paper's name as one part of a path, so that it stays one name in one folder whatever it contains. */
function partOf(name: string, ending: string): string {
  const plain = fileNameOf(name)
    .replace(/[<>:"|?*]/g, ' ')
    .replace(/^\.+/, '')
    .trim();
  const base = plain.toLowerCase().endsWith(ending.toLowerCase()) ? plain.slice(0, -ending.length) : plain;
  return `${clip(base, 100).trim() || 'paper'}${ending}`;
}

const numbered = (n: number) => String(n).padStart(3, '0');
/** Returns the extension of a file's name if it is a plain one. */
const endingOf = (name: string) => /\.[A-Za-z0-9]{1,8}$/.exec(name)?.[0] ?? '';

/** Gathers what is in a deal: executed papers in the order in which they were executed, originals, chains. */
export async function contentsOf(ctx: Context, dealId: string): Promise<{ pieces: Piece[]; index: BinderIndex }> {
  const db = ctx.database.pool;
  const deal = await dealOr404(db, dealId);
  const zone = deal.time_zone;
  const pieces: Piece[] = [];
  const index: BinderIndex = {
    format: 'gate-path-binder/1',
    madeAt: ctx.clock.now().toISOString(),
    deal: {
      address: deal.address,
      city: deal.city,
      kind: KIND_WORDS[deal.kind],
      status: STATUS_WORDS[deal.status],
      people: (await partiesOfDeal(db, dealId)).map((p) => ({ role: sideLabel(p.side, p.ordinal), name: p.name })),
    },
    executed: [],
    originals: [],
    chains: [],
  };
  const packets = (await packetsOfDeals(db, [dealId])).filter((p) => p.status !== 'drafting');
  const ended = (p: (typeof packets)[number]) => p.ended_at?.getTime() ?? Number.MAX_SAFE_INTEGER;
  for (const p of packets.sort((a, b) => ended(a) - ended(b))) {
    const { state } = await ctx.packets.look(p.id);
    if (!state) continue;
    const documents = new Map(documentsOf(state).map((d) => [d.id, d.name]));
    for (const s of state.sealed ?? []) {
      const name = documents.get(s.recordOf ?? s.documentId) ?? 'Paper';
      const path = `executed/${numbered(index.executed.length + 1)} ${partOf(s.recordOf ? `${name}, signing record` : name, '.pdf')}`;
      pieces.push({ path, from: { sha256: s.sha256 } });
      index.executed.push({
        path,
        name,
        packet: p.name,
        on: state.endedAt ? dayOf(state.endedAt, zone) : '',
        sha256: s.sha256,
        signedBy: stillIn(state)
          .filter((x) => state.parties[x.id]?.status === 'done')
          .map((x) => x.name),
      });
    }
    const path = `chains/${numbered(index.chains.length + 1)} ${partOf(p.name, '.json')}`;
    pieces.push({ path, from: { chainOf: p.id } });
    index.chains.push({ path, packet: p.name });
  }
  for (const d of (await documentsOfDeal(db, dealId)).filter((x) => !x.sealed && x.status !== 'failed')) {
    const path = `originals/${numbered(index.originals.length + 1)} ${partOf(d.file_name, endingOf(d.file_name))}`;
    pieces.push({ path, from: { sha256: d.original_sha256 } });
    index.originals.push({
      path,
      name: d.name,
      type: d.type.replace(/_/g, ' '),
      sha256: d.original_sha256,
      added: dayOf(d.created_at.toISOString(), zone),
    });
  }
  return { pieces, index };
}
