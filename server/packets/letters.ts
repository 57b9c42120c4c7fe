/** Messages to a packet's people: signing links and news to parties, notices to the sender. */
import type { PacketParty } from '@gatepath/core/packet';
import type { PacketState } from '@gatepath/core/routing';
import { calendarDay } from '@gatepath/core/words';
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import { allMembers, findFirm, memberById, type AnyMember, type Member } from '../firm/queries';
import { makeLink } from '../links/links';
import { compose, type MessageExtras, type MessageKind } from '../mail/messages';
import { composeNotice, type NoticeWords } from '../mail/notices';
import { postMessage } from '../mailroom/post';
import { wordsOf } from '../words';
import type { PacketRow } from './queries';

/** What a sender is notified of about each household of a notice. */
const ALWAYS_TOLD: readonly NoticeWords['notice'][] = ['question', 'declined', 'trouble'];

/** Writes to a packet's people: to parties in their language, to the sender about what they chose. */
export class Letters {
  private from: Promise<{ firmName: string; sender: Member }> | null = null;

  constructor(
    private readonly ctx: Context,
    private readonly tx: Tx,
    private readonly row: PacketRow,
    private readonly state: PacketState,
  ) {}

  /** Returns firm and sender, read when the first letter is written: most acts write none. */
  private heads(): Promise<{ firmName: string; sender: Member }> {
    this.from ??= (async () => ({
      firmName: (await findFirm(this.tx.db))!.name,
      sender: (await memberById(this.tx.db, this.row.created_by))!,
    }))();
    return this.from;
  }

  /** Returns the last day in the party's language; null if there is none. */
  private lastDay(p: PacketParty): string | null {
    const day = this.state.plan.schedule?.lastDay;
    return day ? calendarDay(wordsOf(p.language), day) : null;
  }

  /** Writes to a party; `link` makes a new signing link for it. */
  async toParty(
    p: PacketParty,
    kind: MessageKind,
    more: Record<string, string | number | boolean | null> = {},
    o: { link?: boolean } & Pick<MessageExtras, 'subject' | 'message' | 'note'> = {},
  ): Promise<void> {
    const { plan } = this.state;
    const { firmName, sender } = await this.heads();
    const words = wordsOf(p.language);
    const mailbox = p.email.toLowerCase();
    const link = o.link ? await makeLink(this.ctx, this.tx, this.row.id, p.id) : null;
    const parts = {
      firmName,
      senderName: sender.name,
      packetName: plan.packetName,
      dealName: plan.dealName,
      toName: p.name,
      ...more,
    };
    const message = compose(kind, words, parts, {
      link,
      lastDay: this.lastDay(p),
      shared: !!mailbox && plan.parties.some((x) => x.id !== p.id && x.email.toLowerCase() === mailbox),
      subject: o.subject,
      message: o.message,
      note: o.note,
    });
    await postMessage(this.ctx, this.tx, {
      row: this.row,
      kind,
      partyId: p.id,
      to: { name: p.name, email: p.email, phone: p.phone },
      message,
      link,
      words,
      parts,
    });
  }

  /** Notifies the sender and the members the packet reports to, each according to their settings. */
  async toSender(words: NoticeWords): Promise<void> {
    // A notice to many households has its own screen; messages are only about what needs attention.
    if (this.row.notice_id && !ALWAYS_TOLD.includes(words.notice)) return;
    const { firmName, sender } = await this.heads();
    const { plan } = this.state;
    const link = `${this.ctx.config.publicUrl}/packets/${this.row.id}`;
    for (const member of [sender, ...(await this.reported(sender))]) {
      if (!member.notices.includes(words.notice)) continue;
      const message = composeNotice(
        { firmName, toName: member.name, packetName: plan.packetName, dealName: plan.dealName, link },
        words,
      );
      await postMessage(this.ctx, this.tx, {
        row: this.row,
        kind: `notice_${words.notice}`,
        partyId: null,
        to: { name: member.name, email: member.email, phone: null },
        message,
        link,
      });
    }
  }

  /** Returns the members the packet reports to who still belong to the firm. */
  private async reported(sender: Member): Promise<Member[]> {
    const ids = this.state.plan.reports ?? [];
    if (!ids.length) return [];
    const all = new Map((await allMembers(this.tx.db)).map((m) => [m.id, m]));
    const told = new Set<Member>();
    for (const id of ids) {
      const m = inPlaceOf(id, all);
      if (m && m.id !== sender.id) told.add(m);
    }
    return [...told];
  }
}

/** Returns a member, or whoever took over from them, in turn; null if nobody did. */
function inPlaceOf(id: string, all: ReadonlyMap<string, AnyMember>): Member | null {
  const seen = new Set<string>();
  let m = all.get(id);
  while (m?.disabled_at && m.handed_to && !seen.has(m.id)) {
    seen.add(m.id);
    m = all.get(m.handed_to);
  }
  return m && !m.disabled_at ? m : null;
}
