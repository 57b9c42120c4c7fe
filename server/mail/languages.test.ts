/** Every message in every language, from the real words, without a hole. */
import { LANGUAGES, wordsFor, wordsOf } from '../words';
import { compose, MESSAGE_KINDS } from './messages';

const PARTS = {
  firmName: 'Towpath & Vane Realty',
  senderName: 'Odile Farrant',
  packetName: 'Listing papers',
  dealName: '14 Lantern Row',
  toName: 'Wren Alder',
};
/** What single kinds ask for beyond that. */
const MORE = {
  kind: 'strike',
  page: 3,
  documentName: 'Disclosure',
  words: 'the shed',
  act: 'sign',
  n: 4,
  beforeName: 'Callum Alder',
  note: 'I am in hospital',
  question: 'Is the shed included?',
  code: '042317',
  minutes: 15,
  documents: 'Disclosure',
};

test.each(LANGUAGES.map((l) => l.tag))('every message in %s is whole', (tag) => {
  const words = wordsOf(tag);
  expect(words.language).toBe(tag);
  for (const kind of MESSAGE_KINDS) {
    const m = compose(
      kind,
      words,
      { ...PARTS, ...MORE },
      {
        link: 'https://gate.test/sign/abc',
        lastDay: 'Friday',
        shared: true,
        message: 'For all of you',
        note: 'For you alone',
      },
    );
    for (const text of [m.subject, m.text, m.html]) {
      expect([kind, text.trim() !== '']).toEqual([kind, true]);
      expect([kind, /undefined|null|\{\w+\}/.test(text)]).toEqual([kind, false]);
    }
    expect(m.text).toContain('Wren Alder');
    expect(m.html).toContain(`<html lang="${tag}">`);
    // A message that asks for something leads there.
    if (/^(ask|nudge|warning|extended|new_link|handed|answer|copy|executed)/.test(kind))
      expect([kind, m.text.includes('https://gate.test/sign/abc')]).toEqual([kind, true]);
  }
});

test('the browser’s language decides where nobody is known yet', () => {
  expect(wordsFor('es-MX,es;q=0.9,en;q=0.8').language).toBe('es');
  expect(wordsFor('de,vi;q=0.5').language).toBe('vi');
  // The order of liking counts, and not that of writing.
  expect(wordsFor('en;q=0.1,vi;q=0.4,es;q=0.9').language).toBe('es');
  expect(wordsFor(`${'x,'.repeat(100_000)}es`).language).toBe('en');
  expect(wordsFor(undefined).language).toBe('en');
});
