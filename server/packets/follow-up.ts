/** What follows from events: signing links, messages, sealing. Enqueued in the events' own transaction. */
import { byLink, ACT_FACTS, receives } from '@gatepath/core/packet';
import { firstName, listWords } from '@gatepath/core/text';
import { calendarDay, ENGLISH } from '@gatepath/core/words';
import type { PacketParty } from '@gatepath/core/packet';
import {
  type PacketEvent,
  type PacketEventBody,
  type PacketEventType,
  type PacketState,
  holdUp,
  isNeeded,
  marksLeft,
  partyOf,
  stillIn,
  waitingFor,
} from '@gatepath/core/routing';
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import type { NoticeWords } from '../mail/notices';
import { endLinks } from '../links/links';
import { clearTries } from '../links/queries';
import { Letters } from './letters';
import type { PacketRow } from './queries';
import { progressOf } from '@gatepath/core/routing';

type Body<T extends PacketEventType> = Extract<PacketEventBody, { type: T }>;

/** What the follow-up of an event is computed from. */
class Following {
  readonly letters: Letters;

  constructor(
    readonly ctx: Context,
    readonly tx: Tx,
    readonly row: PacketRow,
    readonly state: PacketState,
  ) {
    this.letters = new Letters(ctx, tx, row, state);
  }

  get plan() {
    return this.state.plan;
  }

  party(id: string): PacketParty {
    const p = partyOf(this.plan, id);
    if (!p) throw new Error('an event names a party that is not in the packet');
    return p;
  }

  /** Returns everyone who was asked so far. */
  asked(): PacketParty[] {
    return stillIn(this.state).filter((x) => progressOf(this.state, x.id).askedAt);
  }

  tell(notice: NoticeWords['notice'], subject: string, ...paragraphs: string[]): Promise<void> {
    return this.letters.toSender({ notice, subject, paragraphs });
  }

  holds(): string {
    return this.state.status === 'at_gate' ? holdUp(this.state).sentence : '';
  }

  seal(): Promise<void> {
    return this.ctx.jobs.queue(this.tx, 'seal', this.row.id);
  }

  endLinks(partyId: string | null): Promise<void> {
    return endLinks(this.ctx, this.tx, this.row.id, partyId);
  }
}

/** Events from which nothing follows. The compiler asks of every other one what does. */
const QUIET = [
  'sent',
  'gate_opened',
  'gate_passed',
  'agreed',
  'arrived',
  'letter_went',
  'delivered',
  'hand_set',
  'mark_filled',
  'mark_cleared',
  'proved',
  'language_chosen',
  'hosted',
  'path_changed',
  'party_added',
  'act_changed',
  'marks_changed',
  'reading_changed',
  'document_added',
  'revised',
] as const satisfies readonly PacketEventType[];
type Quiet = (typeof QUIET)[number];
const isQuiet = (body: PacketEventBody): body is Body<Quiet> =>
  (QUIET as readonly PacketEventType[]).includes(body.type);

type Followed = Exclude<PacketEventType, Quiet>;
/** What follows from each of the other events. */
const FOLLOWS: { [T in Followed]: (f: Following, body: Body<T>) => Promise<void> } = {
  async asked(f, { partyId }) {
    const p = f.party(partyId);
    const first = firstName(p.name);
    // At the desk the host opens the ceremony; a member signs from the application.
    if (!byLink(p)) return f.tell('asked', `${first} is to sign at the desk`, f.holds());
    const kind = ACT_FACTS[p.act].letter;
    const { subject, message } = f.plan;
    // A subject the sender wrote is in the sender's language.
    const own = (p.language ?? 'en') === 'en' ? subject : '';
    await f.letters.toParty(p, kind, {}, { link: true, subject: own, message, note: p.note });
    return f.tell('asked', `${first} was asked`, `${p.name} was asked just now.`);
  },
  async asked_again(f, { partyId, redlineId }) {
    const p = f.party(partyId);
    const { redline } = f.state.corrections.find((c) => c.redline.id === redlineId)!;
    if (!byLink(p)) return;
    const documentName = f.plan.documents.find((d) => d.id === redline.documentId)?.name ?? '';
    const parts = { kind: redline.kind, page: redline.page, documentName, words: redline.text };
    return f.letters.toParty(p, 'ask_again', parts, { link: true });
  },
  opened(f, { partyId }) {
    const p = f.party(partyId);
    return f.tell('opened', `${firstName(p.name)} opened it`, `${p.name} opened the packet.`, f.holds());
  },
  async party_done(f, { partyId }) {
    const p = f.party(partyId);
    await f.seal();
    if (f.state.status === 'at_gate')
      await f.tell('done', `${firstName(p.name)} is done`, `${p.name} is done.`, f.holds());
  },
  corrected: (f) => f.seal(),
  async excused(f, { partyId }) {
    const p = f.party(partyId);
    if (byLink(p)) await f.letters.toParty(p, 'excused');
  },
  async declined(f, { partyId, reason }) {
    const p = f.party(partyId);
    await f.tell(
      'declined',
      `${firstName(p.name)} declined`,
      `${p.name} declined to sign, and wrote:`,
      `“${reason}”`,
      'The packet has ended. No one else can sign it.',
    );
    for (const x of f.asked()) if (x.id !== partyId) await f.letters.toParty(x, 'ended');
  },
  async withdrawn(f, { reason, newVersion }) {
    await f.endLinks(null);
    for (const x of f.asked()) await f.letters.toParty(x, newVersion ? 'new_version' : 'withdrawn', { note: reason });
  },
  async lapsed(f) {
    await f.endLinks(null);
    for (const x of f.asked())
      if (progressOf(f.state, x.id).status !== 'done' && isNeeded(progressOf(f.state, x.id).status))
        await f.letters.toParty(x, 'lapsed');
    return f.tell(
      'lapsing',
      'Lapsed',
      holdUp(f.state).sentence,
      'You can extend the last day on the packet’s page. What was signed is saved.',
    );
  },
  async extended(f) {
    for (const x of waitingFor(f.state))
      if (byLink(x) && !receives(x)) await f.letters.toParty(x, 'extended', {}, { link: true });
  },
  async warned(f, { lastDay }) {
    for (const x of waitingFor(f.state))
      if (byLink(x) && !receives(x)) await f.letters.toParty(x, 'warning', {}, { link: true });
    return f.tell('lapsing', `Last day ${calendarDay(ENGLISH, lastDay)}`, f.holds());
  },
  async nudged(f, { partyId, words }) {
    const p = f.party(partyId);
    if (!byLink(p)) return;
    const { message } = f.plan;
    // Nothing can be done with a delivery: it is sent again.
    if (receives(p))
      return f.letters.toParty(p, 'deliver', {}, { link: true, message: words ?? message, note: p.note });
    const own = words ?? f.plan.schedule?.nudge?.words ?? '';
    await f.letters.toParty(
      p,
      'nudge',
      { act: p.act, n: marksLeft(f.state, p.id).length },
      { link: true, message: own },
    );
  },
  async party_corrected(f, { partyId }) {
    const p = f.party(partyId);
    await f.endLinks(partyId);
    if (progressOf(f.state, partyId).askedAt && byLink(p)) await f.letters.toParty(p, 'new_link', {}, { link: true });
  },
  async party_dropped(f, { partyId, reason }) {
    const p = f.party(partyId);
    const { askedAt, shownAt } = progressOf(f.state, partyId);
    await f.endLinks(partyId);
    if ((askedAt || shownAt) && byLink(p)) await f.letters.toParty(p, 'taken_out', { note: reason });
  },
  async shown(f, { partyId }) {
    const p = f.party(partyId);
    await f.letters.toParty(p, 'read_along', {}, { link: true, message: f.plan.message, note: p.note });
  },
  async link_renewed(f, { partyId }) {
    await f.endLinks(partyId);
    return f.letters.toParty(f.party(partyId), 'new_link', {}, { link: true });
  },
  async handed_over(f, { partyId, reason }) {
    const p = f.party(partyId);
    await f.endLinks(partyId);
    await clearTries(f.tx.db, f.row.id, partyId);
    const before = progressOf(f.state, partyId).before.at(-1)!;
    const parts = { beforeName: before.name, note: reason };
    await f.letters.toParty(p, 'handed', parts, { link: true, message: f.plan.message });
    return f.tell(
      'trouble',
      `${firstName(before.name)} handed over`,
      `${before.name} handed over to ${p.name} (${p.email}), and wrote:`,
      `“${reason}”`,
    );
  },
  question_asked(f, { partyId, text }) {
    const p = f.party(partyId);
    return f.tell(
      'question',
      `${firstName(p.name)} has a question`,
      `${p.name} asks:`,
      `“${text}”`,
      'Answer on the packet’s page.',
    );
  },
  question_answered(f, { partyId, questionId, text }) {
    const question = f.state.questions.find((x) => x.id === questionId)!;
    const open = f.state.status === 'at_gate' || f.state.status === 'executed';
    return f.letters.toParty(f.party(partyId), 'answer', { question: question.text, note: text }, { link: open });
  },
  bounced(f, { partyId, why }) {
    const p = f.party(partyId);
    return f.tell(
      'trouble',
      `The message to ${firstName(p.name)} came back`,
      `${p.name} cannot be reached: ${why}`,
      'Correct the address on the packet’s page; a new link goes out at once.',
    );
  },
  locked(f, { partyId }) {
    const p = f.party(partyId);
    return f.tell(
      'trouble',
      `${firstName(p.name)} is locked out`,
      `${p.name} entered too many wrong codes. Make sure it is really them, then let them try again on the packet’s page.`,
    );
  },
  unlocked: (f, { partyId }) => clearTries(f.tx.db, f.row.id, partyId),
  executed: (f) => f.seal(),
  async sealed(f) {
    const documents = listWords(f.plan.documents.map((d) => d.name));
    // Whoever received it has it, and their link keeps working.
    for (const x of stillIn(f.state))
      if (!receives(x) && (x.email || x.phone)) await f.letters.toParty(x, 'executed', { documents }, { link: true });
    return f.tell(
      'executed',
      'Executed',
      `Everyone is done: ${listWords(stillIn(f.state).map((x) => firstName(x.name)))}.`,
      `The sealed copies are ready: ${documents}.`,
    );
  },
};

/** Does what follows from events, in their transaction: signing links, messages, sealing. */
export async function followUp(
  ctx: Context,
  tx: Tx,
  row: PacketRow,
  state: PacketState,
  events: PacketEvent[],
): Promise<void> {
  const f = new Following(ctx, tx, row, state);
  for (const { body } of events)
    if (!isQuiet(body)) await (FOLLOWS[body.type] as (f: Following, b: Body<Followed>) => Promise<void>)(f, body);
}
