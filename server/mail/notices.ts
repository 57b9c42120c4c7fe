/** Messages to the sender about a packet, in the firm's language. */
import type { Notice } from '@gatepath/contract';
import { ENGLISH, say } from '@gatepath/core/words';
import { layOut, type Composed } from './messages';

/** What notices to members need. */
export interface NoticeParts {
  firmName: string;
  toName: string;
  packetName: string;
  dealName: string;
  link: string;
}

/** One thing to notify of: its kind, the subject, and what happened. */
export interface NoticeWords {
  notice: Notice;
  subject: string;
  paragraphs: string[];
}

/** Composes a notice to a member. */
export function composeNotice(parts: NoticeParts, words: NoticeWords): Composed {
  return layOut({
    language: 'en',
    subject: `${words.subject}: ${parts.packetName}`,
    paragraphs: [
      say(ENGLISH, 'mail.hello', { toName: parts.toName }),
      ...words.paragraphs.filter(Boolean),
      `“${parts.packetName}”, ${parts.dealName}`,
    ],
    link: { label: 'See the packet', href: parts.link },
    fails: say(ENGLISH, 'mail.button_fails'),
    firm: parts.firmName,
  });
}
