/**
 * Forms with ways of printing of their own, written while the rules stood as they were after the first three sets, and
 * measured apart, learnt from afterwards. Invented papers of the demo world.
 */
import { box, cell } from '../blank';
import type { FormSource } from '../types';
import { frame, link, odt, over, pages, row, sheet, spaces, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const fourth: FormSource[] = [
  {
    name: 'long-sale-sheet',
    how: 'sheet',
    body: sheet(
      pages(
        [
          `<h1>Contract for a house</h1><p>1. PARTIES. ${us(40, 'name', 'seller', 1)} (“Seller”) agrees to sell and ${us(40, 'name', 'buyer', 1)} (“Buyer”) agrees to buy the land and buildings at ${us(44, 'text')} (the “Property”).</p><p>2. PRICE. The price is $${us(12, 'text')}, paid so: $${us(10, 'text')} with this contract; $${us(10, 'text')} by a loan over ${us(4, 'text')} years at not more than ${us(5, 'text')}%.</p>`,
          `<p>3. DATES. The hand-over is on ${us(14, 'date')} or before. The buyer has until ${us(6, 'text')} p.m. on ${us(14, 'date')} to inspect.</p><p>4. CHOICES. ${box()} A well is there. ${box()} A tank is buried. ${box()} None.</p>`,
          `<p>5. NOTICES. To the seller at ${us(36, 'text')}; to the buyer at ${us(36, 'text')}.</p>`,
          `<p><b>Signatures</b></p><table><tr><th>Buyer</th><th>Date</th><th>Seller</th><th>Date</th></tr><tr>${cell('signature', 'buyer', 1)}${cell('date', 'buyer', 1)}${cell('signature', 'seller', 1)}${cell('date', 'seller', 1)}</tr><tr>${cell('signature', 'buyer', 2)}${cell('date', 'buyer', 2)}${cell('signature', 'seller', 2)}${cell('date', 'seller', 2)}</tr></table>`,
        ],
        (n) =>
          `<span>Seller’s initials ${us(5, 'initials', 'seller', 1)} / ${us(5, 'initials', 'seller', 2)}</span><span style="float:right">Buyer’s initials ${us(5, 'initials', 'buyer', 1)} / ${us(5, 'initials', 'buyer', 2)}</span><br>${n} of 4`,
      ),
    ),
  },
  {
    name: 'counter-single-browser',
    how: 'browser',
    body: sheet(`
<h1 class="sans">COUNTER TO AN OFFER</h1>
<p class="sans">The undersigned answer the offer made on ${us(12, 'date')} by ${us(30, 'name', 'buyer', 1)} as buyer to ${us(30, 'name', 'seller', 1)} as seller for ${us(30, 'text')}. All terms stay but these:</p>
<p class="sans">(a) price $${us(12, 'text')} (b) deposit $${us(10, 'text')} (c) hand-over on ${us(12, 'date')} (d) other: ${us(60, 'text')}</p>
<p class="sans">It may be accepted until ${us(6, 'text')} on ${us(12, 'date')}.</p>
<div class="sans" style="margin-top:30pt">${[
      ['Seller', 'seller', 1],
      ['Seller', 'seller', 2],
      ['Buyer', 'buyer', 1],
      ['Buyer', 'buyer', 2],
    ]
      .map(
        ([who, r, o]) =>
          `<p style="margin-top:22pt">${us(36, 'signature', r as string, o as number)} ${us(16, 'date', r as string, o as number)}<br>${who}${nb(64)}Date</p>`,
      )
      .join('')}</div>`),
  },
  {
    name: 'pool-items-library',
    how: 'library',
    body: [
      { text: 'Use of the bathing place', fontSize: 17, margin: [0, 0, 0, 8] },
      {
        text: [
          'House no. ',
          link('________', 'text'),
          '   Season 20',
          link('____', 'text'),
          '   Guests: ',
          link('____', 'text'),
        ],
      },
      { text: 'Initial to the left of each sentence.', italics: true, margin: [0, 10, 0, 4] },
      ...['Children are never left alone.', 'Nothing of glass is brought along.', 'The gate is shut after use.'].map(
        (s) => ({
          columns: [{ width: 60, text: link('________', 'initials', 'tenant', 1) as never }, s],
          margin: [0, 4, 0, 4],
        }),
      ),
      {
        text: [
          'Resident: ',
          link('______________________________', 'signature', 'tenant', 1),
          '   Dated: ',
          link('____________', 'date', 'tenant', 1),
        ],
        margin: [0, 34, 0, 0],
      },
      {
        text: [
          'For the owner: ',
          link('______________________________', 'signature', 'landlord', 1),
          '   Dated: ',
          link('____________', 'date', 'landlord', 1),
        ],
        margin: [0, 24, 0, 0],
      },
    ],
  },
  {
    name: 'arrears-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Plan for paying arrears', 'H'),
        p(
          `The tenant ${odt.us(30, 'name', 'tenant', 1)} owes the landlord ${odt.us(30, 'name', 'landlord', 1)} the sum of $${odt.us(9, 'text')} for the months of ${odt.us(20, 'text')}.`,
        ),
        p(
          `It is paid in ${odt.us(3, 'text')} parts of $${odt.us(8, 'text')}, the first on ${odt.us(12, 'date')}, with ${odt.us(4, 'text')} percent a year.`,
        ),
        p(`Initials of the tenant: ${odt.us(6, 'initials', 'tenant', 1)}`),
        p('Agreed:', 'H'),
        p(`${odt.tab('signature', 'tenant', 1)}<text:tab/>${odt.tab('signature', 'landlord', 1)}`, 'G'),
        p('Tenant<text:tab/>Landlord', 'S'),
        p(`${odt.tab('name', 'tenant', 1)}<text:tab/>${odt.tab('name', 'landlord', 1)}`, 'G'),
        p('Tenant, printed<text:tab/>Landlord, printed', 'S'),
        p(`${odt.tab('date', 'tenant', 1)}<text:tab/>${odt.tab('date', 'landlord', 1)}`, 'G'),
        p('Date<text:tab/>Date', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'agents-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Who acts for whom</h1>
<p>The firm ${us(30, 'text')} acts for the seller. The seller has read this page and signs below.</p>
<p>I/We have received a copy of this page:</p>
${row(over(180, 'Seller', 'signature', 'seller', 1), over(80, 'Date', 'date', 'seller', 1), over(50, 'Time', 'text'))}
${row(over(180, 'Seller', 'signature', 'seller', 2), over(80, 'Date', 'date', 'seller', 2), over(50, 'Time', 'text'))}
${row(over(180, 'Agent of the seller', 'signature', 'broker', 1), over(80, 'Date', 'date', 'broker', 1), over(110, 'License no.', 'text', 'broker', 1))}`),
  },
  {
    name: 'heater-browser',
    how: 'browser',
    body: sheet(`
<h1>Statement on the heating</h1>
<table><tr><th>Question</th><th>Yes</th><th>No</th><th>Seller’s initials</th></tr>
${['Was it serviced within a year?', 'Is a tank buried?', 'Are there reports?'].map((q) => `<tr><td>${q}</td><td>${box()}</td><td>${box()}</td>${cell('initials', 'seller', 1, 'style="width:60pt"')}</tr>`).join('')}</table>
<p style="margin-top:12pt">Made by ${us(24, 'text')} in 19${us(3, 'text')}, filled last on ${us(12, 'date')}.</p>
<p style="margin-top:34pt">${spaces(56, 'signature', 'seller', 1)}, seller ${nb(4)} ${spaces(22, 'date', 'seller', 1)}, date</p>
<p style="margin-top:24pt">${spaces(56, 'signature', 'buyer', 1)}, buyer ${nb(4)} ${spaces(22, 'date', 'buyer', 1)}, date</p>`),
  },
  {
    name: 'frames-row-browser',
    how: 'browser',
    body: sheet(
      pages(
        [
          `<h1>House rules of Weir Terrace</h1><p>Laundry from ${us(5, 'text')} to ${us(5, 'text')}. Deposit for keys: $${us(6, 'text')}.</p>`,
          `<p>Agreed by all who live here:</p>${[1, 2, 3].map((o) => row(under(180, `Tenant ${o}`, 'signature', 'tenant', o), under(80, 'Date', 'date', 'tenant', o), under(150, 'Tenant’s name, please print', 'name', 'tenant', o))).join('')}`,
        ],
        () =>
          `<div style="display:flex;gap:8pt;justify-content:flex-end;align-items:flex-end">Initials${[1, 2, 3].map((o) => `<div style="text-align:center">${frame(44, 'initials', 'tenant', o)}<br><span style="font-size:7.5pt">Tenant ${o}</span></div>`).join('')}</div>`,
      ),
    ),
  },
  {
    name: 'garantia-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Fianza', 'H'),
        p(
          `Yo, ${odt.us(34, 'name', 'guarantor', 1)}, con domicilio en ${odt.us(34, 'text')}, respondo por la renta de ${odt.us(34, 'name', 'tenant', 1)} (el arrendatario) hasta $ ${odt.us(8, 'text')}, desde el ${odt.us(12, 'date')}.`,
        ),
        p(`${odt.link('☐', 'checkbox')} por un año   ${odt.link('☐', 'checkbox')} por el plazo entero`),
        p(`Iniciales del fiador: ${odt.us(6, 'initials', 'guarantor', 1)}`),
        p(`${odt.tab('signature', 'guarantor', 1)}<text:tab/>${odt.tab('date', 'guarantor', 1)}`, 'G'),
        p('Fiador<text:tab/>Fecha', 'S'),
        p(`${odt.tab('signature', 'landlord', 1)}<text:tab/>${odt.tab('date', 'landlord', 1)}`, 'G'),
        p('Arrendador<text:tab/>Fecha', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'sign-rows-library',
    how: 'library',
    turned: true,
    body: [
      { text: 'Extension of the hand-over', fontSize: 17, margin: [0, 0, 0, 8] },
      {
        text: [
          'The contract of ',
          link('____________', 'date'),
          ' for ',
          link('______________________________', 'text'),
          ' is extended to ',
          link('____________', 'date'),
          '. The seller pays $',
          link('________', 'text'),
          ' a day.',
        ],
        margin: [0, 0, 0, 30],
      },
      ...(
        [
          ['Purchaser', 'buyer', 1],
          ['Purchaser', 'buyer', 2],
          ['Vendor', 'seller', 1],
        ] as const
      ).map(([who, r, o]) => ({
        columns: [
          { width: 90, text: who },
          { width: 230, text: link('______________________________', 'signature', r, o) as never },
          { width: 50, text: 'dated' },
          { text: link('______________', 'date', r, o) as never },
        ],
        margin: [0, 12, 0, 12],
      })),
    ],
  },
];
