/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “mailroom” say, in one place to read, edit and translate. */
export const TEXT = {
  // mailroom-place.tsx
  to: (toName: Part, toEmail: Part) => `To ${toName} (${toEmail})`,
  onItsWay: 'on its way',
  inTheMailroom: 'in the mailroom',
  notSent: 'not sent',
  cameBack: 'came back',
  mailroom: 'Mailroom',
  inTheDemoNothingLeaves: 'In the demo, nothing leaves this computer: every message stays here, and its links work.',
  noMailServerIsSet: 'No mail server is set',
  messagesStayHereAndReach:
    'Messages stay here and reach no one. Set SMTP_URL and restart the server; until then, send the links on yourself.',
  theMessages: 'the messages',
  showOlderMessages: 'Show older messages',
  noMessagesYetWhen: 'No messages yet. When a packet is sent, everything that goes out can be read here.',
  textMessage: (toName: Part, toPhone: Part) => `Text message to ${toName} (${toPhone})`,
  openSSigningLink: (split: Part) => `Open ${split}’s signing link`,
  // message-place.tsx
  theMessage: 'the message',
  openTheLink: 'Open the link',
  returnItAsUndeliverable: 'Return it as undeliverable',
  saveAsEml: 'Save as .eml',
};
