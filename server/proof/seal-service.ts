/** Sealing a packet: a revision for each party that finished, and the signing record at the end. */
import {
  documentsOf,
  partyOf,
  type PacketState,
  type RevisionDue,
  type SealedFile,
  type ShownFill,
} from '@gatepath/core/routing';
import { ENGLISH, sideIn } from '@gatepath/core/words';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { fileInUse } from '../documents/queries';
import { findFirm } from '../firm/queries';
import { loadEvents, loadState } from '../packets/log';
import { hashAt, lockPacket } from '../packets/queries';
import { command } from '../packets/service';
import type { RecordContent } from '../pdf/record';
import type { Signing } from '../pdf/seal';
import { wordsOf } from '../words';
import { recordOf } from './record-content';
import { lastParts, partsOf, type RevisionPart } from './revisions';

/** Writes whatever is due, in order; called again for the same packet it does nothing. */
export async function sealPacket(ctx: Context, packetId: string): Promise<void> {
  for (;;) {
    const { state, hash } = await loadState(ctx.database.pool, packetId);
    if (!state || state.sealed) return;
    const due = state.due[0];
    if (due) await writeRevision(ctx, state, due);
    else if (state.status === 'executed') await writeRecord(ctx, state, hash);
    else return;
  }
}

async function writeRevision(ctx: Context, state: PacketState, due: RevisionDue): Promise<void> {
  const party = due.partyId ? partyOf(state.plan, due.partyId)! : null;
  const correction = state.corrections.find((c) => c.seq === due.seq);
  const hash = (await hashAt(ctx.database.pool, state.packetId, due.seq))!;
  const name = party ? `${party.name}, ${sideIn(ENGLISH, party)}` : (correction?.by ?? '');
  const documents = await sealParts(ctx, partsOf(state, due), () => [], {
    name,
    reason: party
      ? `${party.act === 'approve' ? 'Approved' : 'Signed'}: ${state.plan.packetName}`
      : `Changed while on its way: ${state.plan.packetName}`,
    at: due.at,
    event: { packetId: state.packetId, seq: due.seq, hash },
  });
  await store(ctx, state, documents, { type: 'revise', forSeq: due.seq, documents });
}

/** The last revision: the signing record, in every language that is spoken in the packet. */
async function writeRecord(ctx: Context, state: PacketState, hash: string): Promise<void> {
  const events = await loadEvents(ctx.database.pool, state.packetId);
  const firm = (await findFirm(ctx.database.pool))!;
  const languages = [...new Set(['en', ...state.plan.parties.map((p) => p.language ?? 'en')])];
  const seal = await ctx.seal();
  const documents = await sealParts(
    ctx,
    lastParts(state),
    (part) => languages.map((l) => recordOf(wordsOf(l), state, events, part.document.id, hash, firm.name)),
    {
      name: seal.subject,
      reason: `Executed: ${state.plan.packetName}`,
      at: ctx.clock.now().toISOString(),
      event: { packetId: state.packetId, seq: state.seq, hash },
    },
  );
  await store(ctx, state, documents, { type: 'seal', documents });
}

/** Seals each document's part in the workers; how many at a time is theirs to say. */
async function sealParts(
  ctx: Context,
  parts: RevisionPart[],
  recordsFor: (part: RevisionPart) => RecordContent[],
  signing: Omit<Signing, 'keyPem' | 'certificates'>,
): Promise<SealedFile[]> {
  const seal = await ctx.seal();
  return Promise.all(
    parts.map(async (part) => {
      const bytes = await ctx.pdf.run('seal', {
        file: ctx.files.pathOf(part.base),
        fills: part.fills,
        redlines: part.redlines,
        records: recordsFor(part),
        pictures: picturesOf(ctx, part.fills),
        signing: { ...signing, keyPem: seal.keyPem, certificates: seal.certificates.map((c) => new Uint8Array(c)) },
      });
      return { documentId: part.document.id, sha256: (await ctx.files.put(bytes)).sha256 };
    }),
  );
}

/** Where the pictures of hands lie that are drawn in these fills. */
export function picturesOf(ctx: Context, fills: ShownFill[]): Record<string, string> {
  const out: Record<string, string> = {};
  for (const { shows } of fills)
    if (shows.form === 'picture') out[shows.picture.sha256] = ctx.files.pathOf(shows.picture.sha256);
  return out;
}

async function store(
  ctx: Context,
  state: PacketState,
  documents: SealedFile[],
  cmd: { type: 'revise'; forSeq: number; documents: SealedFile[] } | { type: 'seal'; documents: SealedFile[] },
): Promise<void> {
  // The newest file of a document holds all the ones before it: those can be cut out of it.
  const within = new Set(documents.map((d) => d.documentId));
  const originals = new Set(documentsOf(state).map((d) => d.sha256));
  const old = state.revisions
    .flatMap((r) => r.documents)
    .filter((d) => within.has(d.documentId) && !originals.has(d.sha256));
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await lockPacket(tx.db, state.packetId);
    if (!row) return;
    const before = await loadState(tx.db, state.packetId);
    if (cmd.type === 'seal' && before.state?.sealed) return;
    await command(ctx, tx, row, before, cmd, { actor: { kind: 'system' }, origin: null });
    tx.afterCommit(() => void dropOld(ctx, old));
  });
}

async function dropOld(ctx: Context, old: SealedFile[]): Promise<void> {
  for (const { sha256 } of old)
    if (!(await fileInUse(ctx.database.pool, sha256).catch(() => true))) await ctx.files.remove(sha256);
}
