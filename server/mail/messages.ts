/** The words of every message, as plain text and as HTML. */

export type MessageKind =
  'ask' | 'ask_approve' | 'copy' | 'progress' | 'declined' | 'ended' | 'withdrawn' | 'executed' | 'executed_sender';

export interface MessageParts {
  firmName: string;
  senderName: string;
  packetName: string;
  dealName: string;
  toName: string;
  link?: string;
  subject?: string;
  note?: string;
  who?: string;
}

interface Draft {
  subject: string;
  paragraphs: string[];
  button?: string;
}

const WORDS: Record<MessageKind, (p: MessageParts) => Draft> = {
  ask: (p) => ({
    subject: p.subject?.trim() || `Please sign: ${p.packetName}`,
    paragraphs: [
      `${p.senderName} of ${p.firmName} asks you to sign “${p.packetName}” for ${p.dealName}.`,
      ...(p.note?.trim() ? [p.note.trim()] : []),
      'You can read everything first. It works on a phone; nothing has to be printed or installed.',
      `This signing link is yours alone, ${p.toName}. Please do not pass it on.`,
    ],
    button: 'Read and sign',
  }),
  ask_approve: (p) => ({
    subject: p.subject?.trim() || `Please approve: ${p.packetName}`,
    paragraphs: [
      `${p.senderName} of ${p.firmName} asks you to read and approve “${p.packetName}” for ${p.dealName}.`,
      ...(p.note?.trim() ? [p.note.trim()] : []),
      `This link is yours alone, ${p.toName}. Please do not pass it on.`,
    ],
    button: 'Read and approve',
  }),
  copy: (p) => ({
    subject: `For your files: ${p.packetName}`,
    paragraphs: [
      `${p.senderName} of ${p.firmName} sends you a copy of “${p.packetName}” for ${p.dealName}.`,
      'You do not have to do anything. The sealed copy follows when everyone has signed.',
    ],
    button: 'Read it',
  }),
  progress: (p) => ({
    subject: `${p.who} is done: ${p.packetName}`,
    paragraphs: [`${p.who} has finished with “${p.packetName}” for ${p.dealName}.`, p.note ?? ''],
    button: 'See the packet',
  }),
  declined: (p) => ({
    subject: `${p.who} declined: ${p.packetName}`,
    paragraphs: [
      `${p.who} declined to sign “${p.packetName}” for ${p.dealName}, and wrote:`,
      `“${p.note}”`,
      'The packet has ended. Nobody else can sign it.',
    ],
    button: 'See the packet',
  }),
  ended: (p) => ({
    subject: `No longer needed: ${p.packetName}`,
    paragraphs: [
      `“${p.packetName}” for ${p.dealName} has ended. ${p.note ?? ''}`,
      `You do not have to do anything. ${p.firmName} will be in touch if there is something new to sign.`,
    ],
  }),
  withdrawn: (p) => ({
    subject: `Withdrawn: ${p.packetName}`,
    paragraphs: [
      `${p.senderName} of ${p.firmName} has withdrawn “${p.packetName}” for ${p.dealName}, and wrote:`,
      `“${p.note}”`,
      'You do not have to do anything. Your signing link no longer works.',
    ],
  }),
  executed: (p) => ({
    subject: `Signed by everyone: ${p.packetName}`,
    paragraphs: [
      `Everyone has signed “${p.packetName}” for ${p.dealName}. Your sealed copy is ready: ${p.note}.`,
      'The sealed copy shows every signature and ends with the record of who signed what and when. Keep it with your papers.',
    ],
    button: 'Get your copy',
  }),
  executed_sender: (p) => ({
    subject: `Executed: ${p.packetName}`,
    paragraphs: [
      `“${p.packetName}” for ${p.dealName} is executed: ${p.who} are done. The sealed copies are ready: ${p.note}.`,
    ],
    button: 'See the packet',
  }),
};

/** Puts a message into words. */
export function compose(kind: MessageKind, parts: MessageParts): { subject: string; text: string; html: string } {
  const draft = WORDS[kind](parts);
  const paragraphs = [`Hello ${parts.toName},`, ...draft.paragraphs.filter(Boolean)];
  const link = parts.link && draft.button ? { label: draft.button, href: parts.link } : null;
  const text = [...paragraphs, ...(link ? [`${link.label}: ${link.href}`] : []), parts.firmName].join('\n\n') + '\n';
  return { subject: oneLine(draft.subject), text, html: htmlOf(paragraphs, link, parts.firmName) };
}

/** Header fields hold one line: a line break in a subject must not begin a new header. */
function oneLine(text: string): string {
  return text.replace(/[\r\n]+/g, ' ').slice(0, 200);
}

function escape(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

function htmlOf(paragraphs: string[], link: { label: string; href: string } | null, firm: string): string {
  const p = paragraphs.map((t) => `<p style="margin:0 0 16px">${escape(t).replace(/\n/g, '<br>')}</p>`).join('');
  const button = link
    ? `<p style="margin:24px 0"><a href="${escape(link.href)}" style="background:#A8452C;color:#fff;padding:14px 22px;border-radius:10px;text-decoration:none;font-weight:bold;display:inline-block">${escape(link.label)}</a></p><p style="margin:0 0 16px;color:#5B6770;font-size:14px">If the button does not work, open this address:<br>${escape(link.href)}</p>`
    : '';
  return `<!doctype html><html lang="en"><body style="margin:0;background:#FBF8F3;color:#1E2A32;font:17px/1.5 Verdana,sans-serif"><div style="max-width:560px;margin:0 auto;padding:28px 20px">${p}${button}<p style="margin:28px 0 0;color:#5B6770">${escape(firm)}</p></div></body></html>`;
}
