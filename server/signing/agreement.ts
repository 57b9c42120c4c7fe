/** What a client agrees to before the first mark. The version goes into the record. */
export const AGREEMENT = {
  version: '1',
  paragraphs: [
    'You are about to sign documents on a screen instead of on paper. Your electronic signature and initials count like those you would write by hand.',
    'You do not have to sign this way. You can decline here at any time before you finish, and ask the sender for paper instead.',
    'You need a device with a browser and a way to keep a PDF. You will get a sealed copy of everything when all have signed, and you can download the documents at any time.',
    'This agreement covers only the documents in this packet. Nothing here is legal advice.',
  ],
};
