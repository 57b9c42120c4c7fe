/** A purchase agreement of nine pages that was signed somewhere else, as PDF. */
import { PDFDocument, StandardFonts, type PDFFont } from '@cantoo/pdf-lib';

/** What the agreement says; each has a usual value. */
export interface AgreementTerms {
  sellers?: string;
  buyers?: string;
  address?: string;
  price?: string;
  /** What the sentence about closing says after "on or before". */
  closing?: string;
  /** The day of closing on the last page, where it is repeated. */
  closingAgain?: string;
  sellerSigned?: string;
  buyerSigned?: string;
  title?: string;
  pages?: number;
}

const CLAUSES = [
  'Taxes and dues are shared by the day of the hand-over of the keys.',
  'What is fixed to the walls stays with the home unless a list says otherwise.',
  'A letter from a public office about the home is shown to the other side at once.',
  'A change of terms has no force before all who are affected have signed it.',
  'Whoever holds money in trust keeps it apart and shows the account when asked.',
  'The garden is watered and the gutters are kept clear until the keys change hands.',
];

/** Returns a signed agreement. */
export async function signedAgreement(terms: AgreementTerms = {}): Promise<Uint8Array> {
  const { pages = 9, title = 'Purchase agreement' } = terms;
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const said = saidBy(terms);
  for (let n = 1; n <= pages; n++) {
    const page = doc.addPage([612, 792]);
    const lines =
      n === pages
        ? []
        : [...(said[n] ?? []), ...Array.from({ length: 16 }, (_, i) => CLAUSES[(n + i) % CLAUSES.length]!)];
    if (n === 1) page.drawText(title, { x: 72, y: 720, size: 17, font });
    lines.forEach((text, i) => page.drawText(text, { x: 72, y: 680 - i * 22, size: 11, font }));
    page.drawText(`${title}, page ${n} of ${pages}`, { x: 72, y: 40, size: 9, font });
  }
  drawSignatures(doc, font, terms);
  return doc.save();
}

/** Returns the sentences of each page. */
function saidBy(terms: AgreementTerms): Record<number, string[]> {
  const {
    sellers = 'Orla Byrne and Dermot Byrne',
    buyers = 'Maren Aalto',
    address = '26 Lock Hill, Tern Lock',
    price = '$412,000',
    closing = 'January 15, 2027',
  } = terms;
  return {
    1: [
      `This agreement is made between ${sellers} (the “Sellers”)`,
      `and ${buyers} (the “Buyer”) for the property at ${address}.`,
      'The home was built in 1968.',
    ],
    2: [`3. The purchase price is ${price}. The earnest money is $8,000, paid within three days of acceptance.`],
    3: [`4. Closing takes place on or before ${closing}.`],
    4: [
      '6. The Buyer may have the home inspected. The inspection period ends ten (10) days after acceptance.',
      '7. Loan approval is due no later than 21 days after acceptance.',
      '8. The disclosures are handed over on December 2, 2026.',
    ],
  };
}

function drawSignatures(doc: PDFDocument, font: PDFFont, terms: AgreementTerms): void {
  const page = doc.getPages().at(-1)!;
  const put = (text: string, x: number, y: number) => page.drawText(text, { x, y, size: 11, font });
  put('Signatures', 72, 700);
  if (terms.closingAgain) put(`Closing date: ${terms.closingAgain}`, 72, 670);
  const names = (text: string) => text.split(' and ');
  const signers = [
    ...names(terms.sellers ?? 'Orla Byrne and Dermot Byrne').map((name) => ({
      role: 'Seller',
      name,
      day: terms.sellerSigned ?? '11/28/2026',
    })),
    ...names(terms.buyers ?? 'Maren Aalto').map((name) => ({
      role: 'Buyer',
      name,
      day: terms.buyerSigned ?? '11/27/2026',
    })),
  ];
  signers.forEach(({ role, name, day }, i) => {
    const y = 610 - i * 80;
    page.drawLine({ start: { x: 72, y }, end: { x: 300, y }, thickness: 0.7 });
    for (let k = 0; k < 8; k++)
      page.drawLine({
        start: { x: 84 + k * 12, y: y + 4 },
        end: { x: 94 + k * 12, y: y + (k % 2 ? 6 : 20) },
        thickness: 1.2,
      });
    put(`${role}: ${name}`, 72, y - 14);
    page.drawLine({ start: { x: 380, y }, end: { x: 480, y }, thickness: 0.7 });
    put(day, 390, y + 4);
    put('Date', 380, y - 14);
  });
}

/** What an extension of an agreement says. */
export interface ExtensionTerms {
  closing?: string;
  price?: string;
  buyers?: string;
  /** The day both sides signed; empty for nobody. */
  signed?: string;
}

/** Returns an addendum of one page that moves closing. */
export async function extension(terms: ExtensionTerms = {}): Promise<Uint8Array> {
  const { closing = 'January 29, 2027', price, buyers = 'Maren Aalto', signed = '12/20/2026' } = terms;
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const page = doc.addPage([612, 792]);
  const put = (text: string, x: number, y: number, size = 11) => page.drawText(text, { x, y, size, font });
  put('Addendum: extension of closing', 72, 720, 17);
  const lines = [
    `This addendum to the purchase agreement is made between Orla Byrne (the “Seller”)`,
    `and ${buyers} (the “Buyer”) for the property at 26 Lock Hill, Tern Lock.`,
    `Closing, which was to take place on January 15, 2027, is extended to ${closing}.`,
    ...(price ? [`The purchase price is changed to ${price}.`] : []),
    'All other terms of the agreement stay as they are.',
  ];
  lines.forEach((text, i) => put(text, 72, 680 - i * 22));
  if (!signed) return doc.save();
  [
    ['Seller', 'Orla Byrne'],
    ['Buyer', buyers],
  ].forEach(([role = '', name = ''], i) => {
    const y = 480 - i * 80;
    page.drawLine({ start: { x: 72, y }, end: { x: 300, y }, thickness: 0.7 });
    put(`${role}: ${name}`, 72, y - 14);
    page.drawLine({ start: { x: 380, y }, end: { x: 480, y }, thickness: 0.7 });
    put(signed, 390, y + 4);
    put('Date', 380, y - 14);
  });
  return doc.save();
}
