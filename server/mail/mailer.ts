import { createTransport, type Transporter } from 'nodemailer';
import MailComposer from 'nodemailer/lib/mail-composer';

/** An email to send. */
export interface OutgoingMail {
  id: string;
  toName: string;
  toEmail: string;
  subject: string;
  text: string;
  html: string;
  at: Date;
}

/** A way to send messages: a mail server, or the mailroom, where they are only stored. */
export interface Mailer {
  kind: 'smtp' | 'mailroom';
  send(mail: OutgoingMail): Promise<void>;
  close(): void;
}

/** Returns the mailer: SMTP if configured, otherwise the mailroom. */
export function makeMailer(smtpUrl: string | null, from: string): Mailer {
  if (!smtpUrl) return { kind: 'mailroom', send: async () => undefined, close: () => undefined };
  const transport: Transporter = createTransport(
    // A mail server that hangs must not hold a message longer than a try may take.
    { url: smtpUrl, connectionTimeout: 20_000, greetingTimeout: 20_000, socketTimeout: 30_000 },
    { from },
  );
  return {
    kind: 'smtp',
    async send(mail) {
      await transport.sendMail(fieldsOf(mail, from));
    },
    close: () => transport.close(),
  };
}

function fieldsOf(mail: OutgoingMail, from: string) {
  return {
    from,
    to: { name: mail.toName, address: mail.toEmail },
    subject: mail.subject,
    text: mail.text,
    html: mail.html,
    date: mail.at,
    messageId: `<${mail.id}@gatepath.invalid>`,
  };
}

/** Returns the message as a file that mail programs open (RFC 5322). */
export function toEml(mail: OutgoingMail, from: string): Promise<Buffer> {
  return new MailComposer(fieldsOf(mail, from)).compile().build();
}
