/** Sealing a packet: a revision for each party that finished, and the signing record at the end. */
import { ACT_FACTS, type ShownFill, approves, hasDocument, holdsGate } from '@gatepath/core/packet';
import {
  type PacketEvent,
  type PacketState,
  type RevisionDue,
  type SealedFile,
  documentsOf,
  partyOf,
} from '@gatepath/core/routing';
import { ENGLISH, say, sideIn } from '@gatepath/core/words';
import type { Context } from '../context';
import { queueFileDeletionIn } from '../files/tidy';
import { loadEvents, loadState } from '../packets/log';
import { hashAt } from '../packets/log-queries';
import type { RecordContent } from '../pdf-sealing/record';
import type { Room, Signing } from '../pdf-sealing/seal';
import { CHANGE_SIGNER, RECORD_SIGNER } from '../pdf-sealing/signature';
import { wordsOf } from '../words';
import { foreseenEnd } from './foreseen';
import { recordOf } from './record-content';
import { isSealedBefore, lastParts, partsOf, type RevisionPart } from '../proof/revisions';

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
  const room = await roomFor(ctx, state);
  const documents = await sealParts(
    ctx,
    state,
    partsOf(state, due),
    { room },
    {
      signer: due.partyId ?? CHANGE_SIGNER,
      name,
      reason: party
        ? `${ACT_FACTS[party.act].did}: ${state.plan.packetName}`
        : `Changed while on its way: ${state.plan.packetName}`,
      at: due.at,
      event: { packetId: state.packetId, seq: due.seq, hash },
    },
  );
  await store(ctx, state, documents, { type: 'revise', forSeq: due.seq, documents });
}

/** Writes the last revision: the signing record, in every language of the packet's people. */
async function writeRecord(ctx: Context, state: PacketState, hash: string): Promise<void> {
  const events = await loadEvents(ctx.database.pool, state.packetId);
  const recordsFor = await recordsOf(ctx, state, events, hash);
  const seal = await ctx.seal();
  const documents = await sealParts(
    ctx,
    state,
    lastParts(state),
    { room: (part) => emptyRoom(state, part), records: (part) => recordsFor(part.document.id) },
    {
      signer: RECORD_SIGNER,
      name: seal.subject,
      reason: `Executed: ${state.plan.packetName}`,
      at: ctx.clock.now().toISOString(),
      event: { packetId: state.packetId, seq: state.seq, hash },
    },
  );
  await store(ctx, state, documents, { type: 'seal', documents });
}

/** Returns the languages of the packet's people. */
const languagesOf = (state: PacketState) =>
  [...new Set(['en', ...state.plan.parties.map((p) => p.language ?? 'en')])].map(wordsOf);

/** Returns a function that gives a document's signing record, once in each language that the packet's people use. */
async function recordsOf(
  ctx: Context,
  state: PacketState,
  events: PacketEvent[],
  hash: string,
): Promise<(documentId: string) => RecordContent[]> {
  const firm = (await ctx.firm())!;
  return (id) => languagesOf(state).map((words) => recordOf(words, state, events, id, hash, firm.name));
}

/**
 * Returns the room that a document's first seal reserves: the marks of everybody who comes later, and pages for the
 * record.
 */
async function roomFor(ctx: Context, state: PacketState): Promise<(part: RevisionPart) => Room | null> {
  if (documentsOf(state).every((d) => isSealedBefore(state, d.id))) return () => null;
  const end = foreseenEnd(state, await loadEvents(ctx.database.pool, state.packetId));
  const recordsFor = await recordsOf(ctx, end.state, end.events, '0'.repeat(64));
  return ({ document }) => {
    if (isSealedBefore(state, document.id)) return null;
    const marks = state.plan.marks.filter((m) => m.documentId === document.id && partyOf(state.plan, m.partyId));
    return {
      marks: marks.map(({ id, partyId, page, rect, kind, lines }) => ({
        markId: id,
        partyId,
        page,
        rect,
        kind,
        lines,
      })),
      signers: signersOf(state, document.id),
      records: recordsFor(document.id),
    };
  };
}

/** Returns the parties whose seals a document waits for. */
function signersOf(state: PacketState, documentId: string): Room['signers'] {
  const marked = new Set(state.plan.marks.filter((m) => m.documentId === documentId).map((m) => m.partyId));
  return state.plan.parties
    .filter((p) => holdsGate(p) && hasDocument(p, documentId) && (marked.has(p.id) || approves(p)))
    .map((p) => ({ partyId: p.id, words: `${p.name}, ${sideIn(ENGLISH, p)}` }));
}

/** Returns the room that a document reserves if nobody sealed it before the record: space for late rounds only. */
function emptyRoom(state: PacketState, { document }: RevisionPart): Room | null {
  return isSealedBefore(state, document.id) ? null : { marks: [], signers: [], records: [] };
}

/** Returns the name of every mark of a document in English: "initials, Seller 1". */
export function namesOf(state: PacketState, documentId: string): Record<string, string> {
  const marks = state.plan.marks.filter((m) => m.documentId === documentId);
  return Object.fromEntries(
    marks.map((m) => {
      const party = partyOf(state.plan, m.partyId);
      const kind = say(ENGLISH, `kind.${m.kind}`);
      return [m.id, party ? `${kind}, ${sideIn(ENGLISH, party)}` : kind];
    }),
  );
}

/** Seals each document's part in worker processes, which limit how many run at once. */
async function sealParts(
  ctx: Context,
  state: PacketState,
  parts: RevisionPart[],
  make: { room?: (part: RevisionPart) => Room | null; records?: (part: RevisionPart) => RecordContent[] },
  signing: Omit<Signing, 'keyPem' | 'certificates'>,
): Promise<SealedFile[]> {
  const seal = await ctx.seal();
  const languages = languagesOf(state);
  const files = await Promise.all(
    parts.map(async (part): Promise<SealedFile[]> => {
      const task = {
        file: ctx.files.fileOf(part.base),
        fills: part.fills,
        redlines: part.redlines,
        names: namesOf(state, part.document.id),
        room: make.room?.(part) ?? null,
        records: make.records?.(part) ?? [],
        recordPageWords: {
          kept: languages.map((l) => say(l, 'record.page_kept')),
          unused: languages.map((l) => say(l, 'record.page_unused')),
        },
        pictures: picturesOf(ctx, part.fills),
        signing: { ...signing, keyPem: seal.keyPem, certificates: seal.certificates.map((c) => new Uint8Array(c)) },
      };
      const { bytes, record } = await ctx.work.run('seal', task, state.packetId);
      const { id } = part.document;
      const sealed = { documentId: id, sha256: (await ctx.files.put(bytes)).sha256 };
      if (!record) return [sealed];
      const { sha256 } = await ctx.files.put(record.bytes);
      return [sealed, { documentId: `record.${id}`, sha256, recordOf: id, pages: record.pages }];
    }),
  );
  return files.flat();
}

/** Returns the paths of the pictures of hands that are drawn in these fills. */
export function picturesOf(ctx: Context, fills: ShownFill[]): Record<string, string> {
  const out: Record<string, string> = {};
  for (const { shows } of fills)
    if (shows.form === 'picture') out[shows.picture.sha256] = ctx.files.fileOf(shows.picture.sha256);
  return out;
}

async function store(
  ctx: Context,
  state: PacketState,
  documents: SealedFile[],
  cmd: { type: 'revise'; forSeq: number; documents: SealedFile[] } | { type: 'seal'; documents: SealedFile[] },
): Promise<void> {
  // The newest file of a document contains all earlier ones: they can be cut out of it.
  const within = new Set(documents.map((d) => d.documentId));
  const originals = new Set(documentsOf(state).map((d) => d.sha256));
  const old = state.revisions
    .flatMap((r) => r.documents)
    .filter((d) => within.has(d.documentId) && !originals.has(d.sha256));
  await ctx.packets.alone(state.packetId, async ({ tx, state: now, run }) => {
    if (cmd.type === 'seal' && now?.sealed) return;
    await run(cmd, { actor: { kind: 'system' }, origin: null });
    for (const { sha256 } of old) await queueFileDeletionIn(ctx, tx, sha256);
  });
}
