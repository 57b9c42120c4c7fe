/** Sealing an executed packet: one sealed copy a document, each with the signing record. */
import { DateTime } from 'luxon';
import { MARK_WORDS } from '@gatepath/core/marks';
import {
  inReadingOrder,
  documentsOf,
  shownFills,
  shownRedlines,
  type Hand,
  type PacketEvent,
  type PacketParty,
  type PacketState,
} from '@gatepath/core/routing';
import { count, sideLabel } from '@gatepath/core/text';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { findFirm } from '../firm/queries';
import { loadEvents, loadState } from '../packets/log';
import { lockPacket } from '../packets/queries';
import { command } from '../packets/service';
import type { RecordContent } from '../pdf/record';

/** Seals a packet; called again for the same packet it does nothing. */
export async function sealPacket(ctx: Context, packetId: string): Promise<void> {
  const db = ctx.database.pool;
  const { state, hash } = await loadState(db, packetId);
  if (!state || state.status !== 'executed' || state.sealed) return;
  const events = await loadEvents(db, packetId);
  const firm = (await findFirm(db))!;
  const seal = await ctx.seal();
  const fills = shownFills(state);
  const documents: { documentId: string; sha256: string }[] = [];
  for (const doc of documentsOf(state)) {
    const bytes = await ctx.pdf.run('seal', {
      file: ctx.files.pathOf(doc.sha256),
      fills: fills.filter((f) => f.documentId === doc.id),
      redlines: shownRedlines(state).filter((r) => r.documentId === doc.id),
      record: recordOf(state, events, doc.id, hash, firm.name),
      signing: {
        keyPem: seal.keyPem,
        certificates: seal.certificates.map((c) => new Uint8Array(c)),
        name: seal.subject,
        reason: `Executed: ${state.plan.packetName}`,
        at: ctx.clock.now().toISOString(),
      },
    });
    const stored = await ctx.files.put(bytes);
    documents.push({ documentId: doc.id, sha256: stored.sha256 });
  }
  await inTransaction(db, async (tx) => {
    const row = await lockPacket(tx.db, packetId);
    if (!row) return;
    const before = await loadState(tx.db, packetId);
    if (before.state?.sealed) return;
    await command(ctx, tx, row, before, { type: 'seal', documents }, { actor: { kind: 'system' }, origin: null });
  });
}

/** What the signing record of one document says. Times are in the deal's zone, with its offset. */
export function recordOf(
  state: PacketState,
  events: PacketEvent[],
  documentId: string,
  packetHash: string,
  firmName: string,
): RecordContent {
  const { plan } = state;
  const doc = documentsOf(state).find((d) => d.id === documentId)!;
  const time = (iso: string) =>
    DateTime.fromISO(iso, { zone: plan.timeZone }).setLocale('en-US').toFormat("MMM d, yyyy, HH:mm:ss 'UTC'ZZ");
  const short = (iso: string) => DateTime.fromISO(iso, { zone: plan.timeZone }).toFormat('yyyy-MM-dd HH:mm:ss');
  const fillAt = new Map(Object.entries(state.fills).map(([id, f]) => [id, f.at]));
  const onDoc = inReadingOrder(plan).filter((m) => m.documentId === documentId);
  return {
    firmName,
    packetName: plan.packetName,
    dealName: plan.dealName,
    documentName: doc.name,
    pageCount: doc.pages.length,
    documentSha256: doc.sha256,
    packetHash,
    executedAt: time(state.endedAt!),
    zone: plan.timeZone,
    parties: plan.parties.map((p) => ({
      name: `${p.name}, ${sideLabel(p.side, p.ordinal)}`,
      lines: partyLines(p, state, events, time),
    })),
    acts: plan.parties
      .map((p) => ({
        name: p.name,
        items: onDoc
          .filter((m) => m.partyId === p.id && fillAt.has(m.id))
          .map((m) => `p. ${m.page} ${MARK_WORDS[m.kind]}, ${short(fillAt.get(m.id)!)}`),
      }))
      .filter((a) => a.items.length),
    history: events.flatMap((e) => historyLine(e, plan.parties, time)),
  };
}

function partyLines(
  p: PacketParty,
  state: PacketState,
  events: PacketEvent[],
  time: (iso: string) => string,
): string[] {
  const s = state.parties[p.id]!;
  if (p.act === 'copy') return [p.email, 'Gets a copy'];
  const from = (type: string) => {
    const e = events.find((x) => x.body.type === type && 'partyId' in x.body && x.body.partyId === p.id);
    const where = [e?.origin?.ip && `from ${e.origin.ip}`, e?.origin?.device && `on a ${e.origin.device}`].filter(
      Boolean,
    );
    return where.length ? ` ${where.join(' ')}` : '';
  };
  const acts = Object.values(state.fills).filter((f) => f.partyId === p.id).length;
  return [
    p.email,
    s.askedAt && `Asked ${time(s.askedAt)}`,
    s.openedAt && `Opened ${time(s.openedAt)}${from('opened')}`,
    s.agreedAt && `Agreed to sign electronically ${time(s.agreedAt)}${from('agreed')}`,
    s.hand && `Hand: ${handWords(s.hand.hand)}`,
    s.doneAt &&
      `${p.act === 'approve' ? 'Approved' : `Finished, ${count(acts, 'act')} in this packet,`} ${time(s.doneAt)}${from('party_done')}`,
  ].filter((l): l is string => !!l);
}

function handWords(hand: Hand): string {
  return hand.form === 'typed' ? `typed as “${hand.signature}”, initials “${hand.initials}”` : 'drawn by hand';
}

function historyLine(e: PacketEvent, parties: PacketParty[], time: (iso: string) => string): string[] {
  const name = (id: string) => parties.find((p) => p.id === id)?.name ?? 'Somebody';
  const b = e.body;
  const say = (text: string) => [`${time(e.at)}   ${text}`];
  switch (b.type) {
    case 'sent':
      return say(
        `Sent${e.actor.kind === 'member' ? ` by ${e.actor.name}` : ''}, ${count(b.plan.gates.length, 'gate')}`,
      );
    case 'gate_opened':
      return say(`Gate ${b.gate + 1} opened`);
    case 'asked':
      return say(`${name(b.partyId)} asked`);
    case 'opened':
      return say(`${name(b.partyId)} opened the packet`);
    case 'agreed':
      return say(`${name(b.partyId)} agreed to sign electronically (text ${b.agreement})`);
    case 'party_done':
      return say(`${name(b.partyId)} finished`);
    case 'gate_passed':
      return say(`Gate ${b.gate + 1} passed`);
    case 'executed':
      return say('Executed: every gate passed');
    default:
      return [];
  }
}
