/** What follows from events: passes, messages, sealing. Queued in the events' own transaction. */
import { firstName, listWords } from '@gatepath/core/text';
import { holdUp, type PacketEvent, type PacketParty, type PacketState } from '@gatepath/core/routing';
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import { findFirm, memberById } from '../firm/queries';
import { hashSecret, newId, newSecret } from '../ids';
import { compose, type MessageKind, type MessageParts } from '../mail/messages';
import { insertMessage } from '../mailroom/queries';
import { topics } from '../live/live';
import { insertPass } from '../signing/queries';
import type { PacketRow } from './queries';

export async function followUp(
  ctx: Context,
  tx: Tx,
  row: PacketRow,
  state: PacketState,
  events: PacketEvent[],
): Promise<void> {
  const firm = (await findFirm(tx.db))!;
  const sender = (await memberById(tx.db, row.created_by))!;
  const { plan } = state;
  const party = (id: string) => plan.parties.find((p) => p.id === id)!;
  const base = { firmName: firm.name, senderName: sender.name, packetName: plan.packetName, dealName: plan.dealName };
  const packetLink = `${ctx.config.publicUrl}/packets/${row.id}`;

  const write = async (
    to: { name: string; email: string; partyId: string | null },
    kind: MessageKind,
    parts: Partial<MessageParts>,
  ) => {
    const message = compose(kind, { ...base, toName: to.name, ...parts });
    const id = newId();
    await insertMessage(tx.db, {
      id,
      packet_id: row.id,
      deal_id: row.deal_id,
      party_id: to.partyId,
      kind,
      to_name: to.name,
      to_email: to.email,
      subject: message.subject,
      body_text: message.text,
      body_html: message.html,
      link: parts.link ?? null,
      at: ctx.clock.now(),
    });
    await ctx.jobs.queue(tx, 'mail', id);
    tx.afterCommit(() => ctx.live.tell(topics.mailroom()));
  };
  const toParty = (p: PacketParty) => ({ name: p.name, email: p.email, partyId: p.id });
  const toSender = { name: sender.name, email: sender.email, partyId: null };
  const newPass = async (p: PacketParty): Promise<string> => {
    const secret = newSecret();
    await insertPass(tx.db, {
      id: newId(),
      packet_id: row.id,
      party_id: p.id,
      token_hash: hashSecret(secret, ctx.config.sessionSecret),
      at: ctx.clock.now(),
    });
    return `${ctx.config.publicUrl}/sign/${secret}`;
  };
  const asked = () => plan.parties.filter((p) => state.parties[p.id]!.askedAt);

  for (const { body } of events) {
    switch (body.type) {
      case 'asked': {
        const p = party(body.partyId);
        const link = await newPass(p);
        const kind: MessageKind = p.act === 'copy' ? 'copy' : p.act === 'approve' ? 'ask_approve' : 'ask';
        await write(toParty(p), kind, { link, subject: plan.subject, note: plan.message });
        break;
      }
      case 'party_done':
        if (state.status === 'at_gate')
          await write(toSender, 'progress', {
            link: packetLink,
            who: party(body.partyId).name,
            note: holdUp(state).sentence,
          });
        break;
      case 'declined':
        await write(toSender, 'declined', { link: packetLink, who: party(body.partyId).name, note: body.reason });
        for (const p of asked())
          if (p.id !== body.partyId) await write(toParty(p), 'ended', { note: 'Somebody declined to sign.' });
        break;
      case 'withdrawn':
        for (const p of asked()) await write(toParty(p), 'withdrawn', { note: body.reason });
        break;
      case 'executed':
        await ctx.jobs.queue(tx, 'seal', row.id);
        break;
      case 'sealed': {
        const names = listWords(plan.documents.map((d) => d.name));
        for (const p of plan.parties) await write(toParty(p), 'executed', { link: await newPass(p), note: names });
        await write(toSender, 'executed_sender', {
          link: packetLink,
          note: names,
          who: listWords(plan.parties.map((p) => firstName(p.name))),
        });
        break;
      }
      default:
        break;
    }
  }
}
