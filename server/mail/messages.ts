/** Messages to a packet's parties, each in the party's own language, as plain text and as HTML. */
import { say, type WordKey, type WordParams, type Words } from '@gatepath/core/words';
import { keysOf } from '@gatepath/core/sure';

/** What a message to a party is about, and which sentences it is made of. */
const MESSAGES = {
  ask: { says: ['mail.ask.lead', 'NOTES', 'LAST_DAY', 'mail.ask.easy', 'mail.yours_alone', 'SHARED'] },
  ask_approve: { says: ['mail.ask_approve.lead', 'NOTES', 'LAST_DAY', 'mail.yours_alone', 'SHARED'] },
  ask_again: { says: ['mail.ask_again.lead', 'mail.ask_again.change', 'LAST_DAY', 'mail.yours_alone', 'SHARED'] },
  deliver: { says: ['mail.deliver.lead', 'NOTES', 'mail.deliver.read', 'mail.yours_alone', 'SHARED'] },
  copy: { says: ['mail.copy.lead', 'NOTES', 'mail.copy.later'] },
  nudge: {
    says: ['mail.nudge.lead', 'NOTES', 'mail.nudge.left', 'LAST_DAY', 'mail.nudge.stuck', 'mail.yours_alone', 'SHARED'],
  },
  warning: { says: ['mail.warning.lead', 'mail.nudge.stuck', 'mail.yours_alone', 'SHARED'] },
  extended: { says: ['mail.extended.lead', 'LAST_DAY', 'mail.yours_alone', 'SHARED'] },
  new_link: { says: ['mail.new_link.lead', 'LAST_DAY', 'mail.yours_alone', 'SHARED'] },
  handed: { says: ['mail.handed.lead', 'mail.quoted', 'NOTES', 'LAST_DAY', 'mail.yours_alone'] },
  answer: { says: ['mail.answer.lead', 'mail.answer.reply'] },
  code: { says: ['mail.code.lead', 'mail.code.careful'] },
  agreement: { says: ['mail.agreement.lead', 'agreement.1', 'agreement.2', 'agreement.3', 'agreement.4'] },
  ended: { says: ['mail.ended.lead', 'mail.nothing_to_do', 'mail.in_touch'] },
  excused: { says: ['mail.excused.lead', 'mail.nothing_to_do'] },
  taken_out: { says: ['mail.taken_out.lead', 'mail.quoted', 'mail.withdrawn.dead'] },
  read_along: { says: ['mail.read_along.lead', 'NOTES', 'mail.read_along.later', 'mail.yours_alone', 'SHARED'] },
  withdrawn: { says: ['mail.withdrawn.lead', 'mail.quoted', 'mail.withdrawn.dead'] },
  new_version: {
    says: ['mail.withdrawn.lead', 'mail.quoted', 'mail.withdrawn.dead', 'mail.withdrawn.version'],
    as: 'withdrawn',
  },
  lapsed: { says: ['mail.lapsed.lead', 'mail.in_touch'] },
  executed: { says: ['mail.executed.lead', 'mail.executed.keep'] },
} as const satisfies Record<string, { says: readonly (WordKey | 'NOTES' | 'LAST_DAY' | 'SHARED')[]; as?: string }>;

/** Kinds of messages to parties. */
export type MessageKind = keyof typeof MESSAGES;
/** All kinds of messages to parties. */
export const MESSAGE_KINDS = keysOf(MESSAGES);

/** Values of a message. Every kind needs the first five; some ask for others. */
export interface MessageParts extends WordParams {
  firmName: string;
  senderName: string;
  packetName: string;
  dealName: string;
  toName: string;
}

/** What a message contains besides its required parts. */
export interface MessageExtras {
  link?: string | null;
  /** The sender's own subject, message for all, and note for this party. */
  subject?: string;
  message?: string;
  note?: string;
  lastDay?: string | null;
  /** Whether another party of the packet has the same mailbox. */
  shared?: boolean;
}

/** A composed message. */
export interface Composed {
  subject: string;
  text: string;
  html: string;
}

/** Composes a message to a party, in the party's language. Its subject names the packet and the deal's address. */
export function compose(kind: MessageKind, words: Words, parts: MessageParts, extras: MessageExtras = {}): Composed {
  const { says, as = kind } = MESSAGES[kind] as { says: readonly string[]; as?: string };
  const sentence = (key: string) => say(words, key as WordKey, { ...parts, lastDay: extras.lastDay });
  const paragraphs = says.flatMap((part): string[] => {
    if (part === 'NOTES') return [extras.message?.trim() ?? '', extras.note?.trim() ?? ''];
    if (part === 'LAST_DAY') return extras.lastDay ? [sentence('mail.last_day')] : [];
    if (part === 'SHARED') return extras.shared ? [sentence('mail.shared_mailbox')] : [];
    // A party who only approves has nothing left to do.
    if (part === 'mail.nudge.left' && !parts['n']) return [];
    return [sentence(part)];
  });
  const own = ['ask', 'ask_approve', 'deliver'].includes(kind) ? extras.subject?.trim() : '';
  const { packetName } = parts;
  // The city is left out: phones show some forty letters of a subject.
  const street = parts.dealName.split(',', 1)[0] ?? '';
  const about = packetName.includes(street) ? packetName : `${packetName}, ${street}`;
  const button = `mail.${as}.button`;
  const link = extras.link && button in words.messages ? { label: sentence(button), href: extras.link } : null;
  return layOut({
    language: words.language,
    subject:
      own || say(words, `mail.${as}.subject` as WordKey, { ...parts, lastDay: extras.lastDay, packetName: about }),
    paragraphs: [sentence('mail.hello'), ...paragraphs.filter(Boolean)],
    link,
    fails: sentence('mail.button_fails'),
    firm: parts.firmName,
  });
}

/** Returns a message's parts as plain text and HTML. */
export function layOut(m: {
  language: string;
  subject: string;
  paragraphs: string[];
  link: { label: string; href: string } | null;
  fails: string;
  firm: string;
}): Composed {
  const text = [...m.paragraphs, ...(m.link ? [`${m.link.label}: ${m.link.href}`] : []), m.firm].join('\n\n') + '\n';
  return { subject: oneLine(m.subject), text, html: htmlOf(m) };
}

/** Returns text as one line: a line break in a subject must not begin a new header. */
function oneLine(text: string): string {
  return text.replace(/[\r\n]+/g, ' ').slice(0, 200);
}

function escape(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

function htmlOf(m: Parameters<typeof layOut>[0]): string {
  const p = m.paragraphs.map((t) => `<p style="margin:0 0 16px">${escape(t).replace(/\n/g, '<br>')}</p>`).join('');
  const button = m.link
    ? `<p style="margin:24px 0"><a href="${escape(m.link.href)}" style="background:#A8452C;color:#fff;padding:14px 22px;border-radius:10px;text-decoration:none;font-weight:bold;display:inline-block">${escape(m.link.label)}</a></p><p style="margin:0 0 16px;color:#5B6770;font-size:14px">${escape(m.fails)}<br>${escape(m.link.href)}</p>`
    : '';
  return `<!doctype html><html lang="${escape(m.language)}"><body style="margin:0;background:#FBF8F3;color:#1E2A32;font:17px/1.5 Verdana,sans-serif"><div style="max-width:560px;margin:0 auto;padding:28px 20px">${p}${button}<p style="margin:28px 0 0;color:#5B6770">${escape(m.firm)}</p></div></body></html>`;
}
