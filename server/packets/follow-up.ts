/** What follows from events: passes, messages, sealing. Queued in the events' own transaction. */
import { firstName, listWords } from '@gatepath/core/text';
import { calendarDay, ENGLISH } from '@gatepath/core/words';
import {
  holdUp,
  marksLeft,
  partyOf,
  waitingFor,
  type PacketEvent,
  type PacketParty,
  type PacketState,
} from '@gatepath/core/routing';
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import { findFirm, memberById, type Member } from '../firm/queries';
import { compose, type MessageExtras, type MessageKind } from '../mail/messages';
import { composeNotice, type NoticeWords } from '../mail/notices';
import { postMessage } from '../mailroom/post';
import { endPasses, makePass } from '../signing/passes';
import { clearTries } from '../signing/queries';
import { wordsOf } from '../words';
import type { PacketRow } from './queries';

/** Writes to a packet's people: to parties in their language, to the sender what they chose to know. */
export class Letters {
  private from: Promise<{ firmName: string; sender: Member }> | null = null;

  constructor(
    private readonly ctx: Context,
    private readonly tx: Tx,
    private readonly row: PacketRow,
    private readonly state: PacketState,
  ) {}

  /** Firm and sender, read when the first letter is written: most acts write none. */
  private heads(): Promise<{ firmName: string; sender: Member }> {
    this.from ??= (async () => ({
      firmName: (await findFirm(this.tx.db))!.name,
      sender: (await memberById(this.tx.db, this.row.created_by))!,
    }))();
    return this.from;
  }

  /** The last day as the party's language writes it; null when there is none. */
  private lastDay(p: PacketParty): string | null {
    const day = this.state.plan.schedule?.lastDay;
    return day ? calendarDay(wordsOf(p.language), day) : null;
  }

  /** Writes to a party; `link` makes a new pass for it. */
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
    const link = o.link ? await makePass(this.ctx, this.tx, this.row.id, p.id) : null;
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

  /** Tells the sender, if they chose to be told of such things. */
  async toSender(words: NoticeWords): Promise<void> {
    const { firmName, sender } = await this.heads();
    if (!sender.notices.includes(words.notice)) return;
    const { plan } = this.state;
    const link = `${this.ctx.config.publicUrl}/packets/${this.row.id}`;
    const message = composeNotice(
      {
        firmName,
        toName: sender.name,
        packetName: plan.packetName,
        dealName: plan.dealName,
        link,
      },
      words,
    );
    await postMessage(this.ctx, this.tx, {
      row: this.row,
      kind: `notice_${words.notice}`,
      partyId: null,
      to: { name: sender.name, email: sender.email, phone: null },
      message,
      link,
    });
  }
}

export async function followUp(
  ctx: Context,
  tx: Tx,
  row: PacketRow,
  state: PacketState,
  events: PacketEvent[],
): Promise<void> {
  const letters = new Letters(ctx, tx, row, state);
  for (const event of events) await follow(ctx, tx, row, state, event, letters);
}

async function follow(
  ctx: Context,
  tx: Tx,
  row: PacketRow,
  state: PacketState,
  event: PacketEvent,
  letters: Letters,
): Promise<void> {
  const { plan } = state;
  const { body } = event;
  const p = 'partyId' in body && body.partyId ? partyOf(plan, body.partyId)! : null;
  const first = p ? firstName(p.name) : '';
  const asked = () => plan.parties.filter((x) => state.parties[x.id]!.askedAt);
  const tell = (notice: NoticeWords['notice'], subject: string, ...paragraphs: string[]) =>
    letters.toSender({ notice, subject, paragraphs });
  const holds = () => (state.status === 'at_gate' ? holdUp(state).sentence : '');
  switch (body.type) {
    case 'asked': {
      // At the desk it is the host who opens the ceremony; a member signs from the application.
      if (p!.act === 'desk') return tell('asked', `${first} is to sign at the desk`, holds());
      const kind = p!.act === 'copy' ? 'copy' : p!.act === 'approve' ? 'ask_approve' : 'ask';
      const { subject, message } = plan;
      // A subject the sender wrote is in the sender's language.
      const own = (p!.language ?? 'en') === 'en' ? subject : '';
      await letters.toParty(p!, kind, {}, { link: true, subject: own, message, note: p!.note });
      return tell('asked', `${first} was asked`, `${p!.name} was asked just now.`);
    }
    case 'asked_again': {
      const { redline } = state.corrections.find((c) => c.redline.id === body.redlineId)!;
      if (p!.act === 'desk') return;
      const documentName = plan.documents.find((d) => d.id === redline.documentId)?.name ?? '';
      return letters.toParty(
        p!,
        'ask_again',
        { kind: redline.kind, page: redline.page, documentName, words: redline.text },
        { link: true },
      );
    }
    case 'opened':
      return tell('opened', `${first} opened it`, `${p!.name} opened the packet.`, holds());
    case 'party_done':
      await ctx.jobs.queue(tx, 'seal', row.id);
      if (state.status === 'at_gate') await tell('done', `${first} is done`, `${p!.name} is done.`, holds());
      return;
    case 'corrected':
      return ctx.jobs.queue(tx, 'seal', row.id);
    case 'excused':
      return p!.act === 'desk' ? undefined : letters.toParty(p!, 'excused');
    case 'declined':
      await tell(
        'declined',
        `${first} declined`,
        `${p!.name} declined to sign, and wrote:`,
        `“${body.reason}”`,
        'The packet has ended. Nobody else can sign it.',
      );
      for (const x of asked()) if (x.id !== body.partyId) await letters.toParty(x, 'ended');
      return;
    case 'withdrawn':
      await endPasses(ctx, tx, row.id, null);
      for (const x of asked())
        await letters.toParty(x, body.newVersion ? 'new_version' : 'withdrawn', { note: body.reason });
      return;
    case 'lapsed':
      await endPasses(ctx, tx, row.id, null);
      for (const x of asked())
        if (!['done', 'excused'].includes(state.parties[x.id]!.status)) await letters.toParty(x, 'lapsed');
      return tell(
        'lapsing',
        'Lapsed',
        holdUp(state).sentence,
        'You can extend the last day on the packet’s page; what was signed is kept.',
      );
    case 'extended':
      for (const x of waitingFor(state)) if (x.act !== 'desk') await letters.toParty(x, 'extended', {}, { link: true });
      return;
    case 'warned':
      for (const x of waitingFor(state)) if (x.act !== 'desk') await letters.toParty(x, 'warning', {}, { link: true });
      return tell('lapsing', `Last day ${calendarDay(ENGLISH, body.lastDay)}`, holds());
    case 'nudged':
      return p!.act === 'desk'
        ? undefined
        : letters.toParty(p!, 'nudge', { act: p!.act, n: marksLeft(state, p!.id).length }, { link: true });
    case 'party_corrected': {
      await endPasses(ctx, tx, row.id, body.partyId);
      const s = state.parties[body.partyId]!;
      if (s.askedAt && p!.act !== 'desk') await letters.toParty(p!, 'new_link', {}, { link: true });
      return;
    }
    case 'link_renewed':
      await endPasses(ctx, tx, row.id, body.partyId);
      return letters.toParty(p!, 'new_link', {}, { link: true });
    case 'handed_over': {
      await endPasses(ctx, tx, row.id, body.partyId);
      await clearTries(tx.db, row.id, body.partyId);
      const before = state.parties[body.partyId]!.before.at(-1)!;
      await letters.toParty(
        p!,
        'handed',
        { beforeName: before.name, note: body.reason },
        { link: true, message: plan.message },
      );
      return tell(
        'trouble',
        `${firstName(before.name)} handed over`,
        `${before.name} handed over to ${p!.name} (${p!.email}), and wrote:`,
        `“${body.reason}”`,
      );
    }
    case 'question_asked':
      return tell(
        'question',
        `${first} has a question`,
        `${p!.name} asks:`,
        `“${body.text}”`,
        'Answer on the packet’s page.',
      );
    case 'question_answered': {
      const question = state.questions.find((q) => q.id === body.questionId)!;
      const open = state.status === 'at_gate' || state.status === 'executed';
      return letters.toParty(p!, 'answer', { question: question.text, note: body.text }, { link: open });
    }
    case 'bounced':
      return tell(
        'trouble',
        `The message to ${first} came back`,
        `${p!.name} cannot be reached: ${body.why}`,
        'Correct the address on the packet’s page; a new link goes out at once.',
      );
    case 'locked':
      return tell(
        'trouble',
        `${first} is locked out`,
        `${p!.name} gave too many wrong codes. Make sure it is them, then let them try again on the packet’s page.`,
      );
    case 'unlocked':
      return clearTries(tx.db, row.id, body.partyId);
    case 'executed':
      return ctx.jobs.queue(tx, 'seal', row.id);
    case 'sealed': {
      const documents = listWords(plan.documents.map((d) => d.name));
      for (const x of plan.parties)
        if (x.email || x.phone) await letters.toParty(x, 'executed', { documents }, { link: true });
      return tell(
        'executed',
        'Executed',
        `Everyone is done: ${listWords(plan.parties.map((x) => firstName(x.name)))}.`,
        `The sealed copies are ready: ${documents}.`,
      );
    }
    default:
      return;
  }
}
