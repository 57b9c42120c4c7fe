/** Forms with ways of printing of their own that the rules learnt from. Invented papers of the demo world. */
import { box, cell, by } from '../blank';
import type { FormSource } from '../types';
import { frame, link, odt, over, pages, row, rule, sheet, spaces, under, us } from './parts';

const { p, t } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const learnt: FormSource[] = [
  {
    name: 'counter-two-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Counteroffer No. ${us(4, 'text')}</h1>
<p>This is a counteroffer to the offer dated ${us(14, 'date')} on the property at ${us(44, 'text')} between ${us(30, 'name', 'buyer', 1)} (“Buyer”) and ${us(30, 'name', 'seller', 1)} (“Seller”).</p>
<p>The terms are accepted subject to the following: the price is $ ${us(14, 'text')}; hand-over on ${us(14, 'date')} at ${us(8, 'text')} ${us(4, 'text')} m.</p>
<p>This counteroffer ends unless a signed copy comes back by ${us(8, 'text')} on ${us(14, 'date')}.</p>
<div class="two" style="margin-top:30pt"><div>${under(200, 'SELLER', 'signature', 'seller', 1)}<br>${under(200, 'SELLER', 'signature', 'seller', 2)}</div><div>${under(100, 'DATE', 'date', 'seller', 1)}<br>${under(100, 'DATE', 'date', 'seller', 2)}</div></div>
<p style="margin-top:14pt">Receipt of this counteroffer is acknowledged on ${us(14, 'date')}.</p>
<div class="two"><div>${under(200, 'BUYER', 'signature', 'buyer', 1)}<br>${under(200, 'BUYER', 'signature', 'buyer', 2)}</div><div>${under(100, 'DATE', 'date', 'buyer', 1)}<br>${under(100, 'DATE', 'date', 'buyer', 2)}</div></div>`),
  },
  {
    name: 'agreement-cells-browser',
    how: 'browser',
    body: sheet(
      pages(
        [
          `<h1>Agreement to sell and buy</h1><p>Entered into this ${us(5, 'date')} day of ${us(14, 'date')}, 20${us(3, 'date')} by and between ${us(34, 'name', 'seller', 1)} hereinafter called the seller, and ${us(34, 'name', 'buyer', 1)} hereinafter called the buyer.</p><p>1. Seller sells the parcel known as ${us(40, 'text')}, county of ${us(18, 'text')}.</p><p>2. The price is ${us(30, 'text')} dollars ($ ${us(12, 'text')}), of which ${us(5, 'text')}% is paid at signing.</p>`,
          `<p>3. Buyer may inspect within ${us(5, 'text')} days. [${link('&nbsp;&nbsp;', 'checkbox')}] waived [${link('&nbsp;&nbsp;', 'checkbox')}] not waived.</p><p>4. The house was built in 19${us(3, 'text')} or 20${us(3, 'text')}.</p>`,
          `<p>5. Notices go to the addresses below.</p><div style="margin-top:40pt">${row(under(190, 'Seller', 'signature', 'seller', 1), under(90, 'Date', 'date', 'seller', 1))}${row(under(190, 'Seller', 'signature', 'seller', 2), under(90, 'Date', 'date', 'seller', 2))}${row(under(190, 'Buyer', 'signature', 'buyer', 1), under(90, 'Date', 'date', 'buyer', 1))}${row(under(190, 'Buyer', 'signature', 'buyer', 2), under(90, 'Date', 'date', 'buyer', 2))}</div>`,
        ],
        (n) =>
          `Page ${n} of 3 &nbsp;&nbsp; Buyer’s initials ${frame(34, 'initials', 'buyer', 1)} ${frame(34, 'initials', 'buyer', 2)} &nbsp;&nbsp; Seller’s initials ${frame(34, 'initials', 'seller', 1)} ${frame(34, 'initials', 'seller', 2)}`,
      ),
    ),
  },
  {
    name: 'rules-foot-sheet',
    how: 'sheet',
    body: sheet(
      pages(
        [
          '<h1>Terms of the listing</h1><p>The broker looks for a buyer for six months.</p><p>The fee is due at the hand-over.</p>',
          `<p>The sellers keep the garden in order.</p><div style="margin-top:60pt">${row(under(200, 'Seller 1', 'signature', 'seller', 1), under(90, 'Date', 'date', 'seller', 1))}${row(under(200, 'Seller 2', 'signature', 'seller', 2), under(90, 'Date', 'date', 'seller', 2))}${row(under(200, 'Broker', 'signature', 'broker', 1), under(90, 'Date', 'date', 'broker', 1))}</div>`,
        ],
        () =>
          `Initials: ${under(50, 'Seller 1', 'initials', 'seller', 1)}${under(50, 'Seller 2', 'initials', 'seller', 2)}${under(50, 'Broker', 'initials', 'broker', 1)}`,
      ),
    ),
  },
  {
    name: 'preamble-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Agreement of tenancy', 'H'),
        p(
          `THIS AGREEMENT made on ${odt.us(12, 'date')} between ${odt.us(34, 'name', 'landlord', 1)}, of ${odt.us(30, 'text')} (the “Landlord”), and ${odt.us(34, 'name', 'tenant', 1)} and ${odt.us(34, 'name', 'tenant', 2)} (together the “Tenant”), for the dwelling at ${odt.us(36, 'text')}.`,
        ),
        p(
          `The term begins on ${odt.us(14, 'date')} and ends on ${odt.us(14, 'date')}. The rent is $${odt.us(9, 'text')} a month, due on the ${odt.us(4, 'text')} day of each month; a late fee of ${odt.us(4, 'text')}% is due after ${odt.us(4, 'text')} days.`,
        ),
        p(`Keys are handed over at ${odt.us(6, 'text')} a.m./p.m.`),
        p(`${odt.tab('signature', 'landlord', 1)}<text:tab/>${odt.tab('date', 'landlord', 1)}`, 'G'),
        p('LANDLORD<text:tab/>Date', 'S'),
        p(`${odt.tab('signature', 'tenant', 1)}<text:tab/>${odt.tab('date', 'tenant', 1)}`, 'G'),
        p('TENANT<text:tab/>Date', 'S'),
        p(`${odt.tab('signature', 'tenant', 2)}<text:tab/>${odt.tab('date', 'tenant', 2)}`, 'G'),
        p('TENANT<text:tab/>Date', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'hazards-browser',
    how: 'browser',
    body: sheet(`
<h1 class="sans">Disclosure of hazards</h1>
<p><b>Seller’s disclosure (initial)</b></p>
<p>${us(6, 'initials', 'seller', 1)} (a) Presence of lead paint (check one below):</p>
<p style="margin-left:30pt">${box()} known to be there: ${us(40, 'text')}<br>${box()} not known to the seller</p>
<p>${us(6, 'initials', 'seller', 1)} (b) Records given to the buyer.</p>
<p><b>Buyer’s acknowledgment (initial)</b></p>
<p>${us(6, 'initials', 'buyer', 1)} (c) Buyer has received copies of all records above.</p>
<p>${us(6, 'initials', 'buyer', 1)} (d) Buyer has received the booklet.</p>
<p><b>Agent’s acknowledgment (initial)</b></p>
<p>${us(6, 'initials', 'broker', 1)} (e) Agent has told the seller of the duties.</p>
<p style="margin-top:20pt">The following parties have looked over the information above.</p>
<div style="display:grid;grid-template-columns:1fr 1fr;gap:6pt">${[
      ['Seller', 'seller', 1],
      ['Seller', 'seller', 2],
      ['Buyer', 'buyer', 1],
      ['Buyer', 'buyer', 2],
      ['Agent', 'broker', 1],
      ['Agent', 'broker', 2],
    ]
      .map(
        ([who, r, o]) =>
          `<div>${under(150, who as string, 'signature', r as string, o as number)}${under(60, 'Date', 'date', r as string, o as number)}</div>`,
      )
      .join('')}</div>`),
  },
  {
    name: 'waivers-library',
    how: 'library',
    body: [
      { text: 'Waivers of the buyers', fontSize: 16, margin: [0, 0, 0, 10] },
      { text: 'Each buyer initials what is waived.', margin: [0, 0, 0, 8] },
      ...[
        'The buyers waive the inspection of the roof.',
        'The buyers waive the test of the well.',
        'The buyers have read the rules of the association.',
      ].map((s) => ({
        text: [
          `<a href="https://label.test/initials/buyer/1">______</a>`,
          ' ',
          `<a href="https://label.test/initials/buyer/2">______</a>`,
          ` ${s}`,
        ],
        margin: [0, 4, 0, 4],
      })),
      {
        text: ['The sum of $', link('__________', 'text'), ' is paid on ', link('______________', 'date'), '.'],
        margin: [0, 10, 0, 30],
      },
      {
        columns: [
          [link('______________________________', 'signature', 'buyer', 1), { text: 'Buyer', fontSize: 9 }],
          [link('____________', 'date', 'buyer', 1), { text: 'Date', fontSize: 9 }],
          [link('______________________________', 'signature', 'buyer', 2), { text: 'Buyer', fontSize: 9 }],
          [link('____________', 'date', 'buyer', 2), { text: 'Date', fontSize: 9 }],
        ],
        columnGap: 12,
      },
    ],
  },
  {
    name: 'above-turned-sheet',
    how: 'sheet',
    turned: true,
    body: sheet(`
<h1>Consent of the owners</h1>
<p>We agree that the broker may act for both sides.</p>
<h2>Owner</h2>
${row(over(210, 'Signature', 'signature', 'seller', 1), over(100, 'Date', 'date', 'seller', 1))}
${row(over(210, 'Printed name', 'name', 'seller', 1), over(140, 'Telephone', 'text', 'seller', 1))}
<h2>Buyer</h2>
${row(over(210, 'Signature', 'signature', 'buyer', 1), over(100, 'Date', 'date', 'buyer', 1))}
${row(over(210, 'Printed name', 'name', 'buyer', 1), over(140, 'Telephone', 'text', 'buyer', 1))}
<h2>Broker</h2>
${row(over(210, 'Signature', 'signature', 'broker', 1), over(100, 'Date', 'date', 'broker', 1))}`),
  },
  {
    name: 'people-table-library',
    how: 'library',
    more: [
      ...[103.8, 123.8, 143.7].flatMap((y) => [
        by(1, 'text', 'tenant', 1, [189.5, y, 184, 17]),
        by(1, 'text', 'tenant', 2, [377.5, y, 184, 17]),
      ]),
      ...[200.7, 220.7].flatMap((y) => [
        by(1, 'name', 'unknown', 0, [50.5, y, 243, 17]),
        by(1, 'signature', 'unknown', 0, [297.5, y, 165, 17]),
        by(1, 'date', 'unknown', 0, [466.5, y, 95, 17]),
      ]),
    ],
    body: [
      { text: 'Application of two renters', fontSize: 16, margin: [0, 0, 0, 10] },
      {
        table: {
          widths: [130, '*', '*'],
          body: [
            ['', 'Applicant 1', 'Applicant 2'],
            ['Date of birth', '', ''],
            ['Employer', '', ''],
            ['Income a month', '', ''],
          ],
        },
        margin: [0, 0, 0, 16],
      },
      {
        table: {
          widths: ['*', 160, 90],
          body: [
            ['Name', 'Signature', 'Date'],
            ['\u00a0', '', ''],
            ['\u00a0', '', ''],
          ],
        },
      },
    ],
  },
  {
    name: 'print-beside-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Commission agreement</h1>
<p>The fee of ${us(5, 'text')} % or $${us(10, 'text')} is shared between the offices named here: ${us(34, 'text')} and ${us(34, 'text')}.</p>
<div style="margin-top:26pt">${row(under(200, 'Listing broker', 'signature', 'broker', 1), under(200, 'Listing broker (print)', 'name', 'broker', 1))}
${row(under(200, 'Agent', 'signature', 'broker', 2), under(200, '(print)', 'name', 'broker', 2))}
${row(under(200, 'Buyer’s broker', 'signature', 'buyer_broker', 1), under(200, 'Buyer’s broker, printed', 'name', 'buyer_broker', 1))}</div>
<p style="margin-top:20pt">Name of firm (typed): ${rule(220, 'text')}</p>`),
  },
  {
    name: 'four-tenants-browser',
    how: 'browser',
    body: sheet(
      pages(
        [
          `<h1>House lease</h1><p>Rent: $ ${us(10, 'text')} from the ${us(4, 'text')} to the ${us(4, 'text')} of each month. Quiet hours from ${us(6, 'text')} to ${us(6, 'text')}.</p>`,
          `<p>Signed by all:</p><div>${[1, 2, 3, 4].map((o) => row(under(200, `Lessee`, 'signature', 'tenant', o), under(90, 'Date', 'date', 'tenant', o))).join('')}${row(under(200, 'Lessor', 'signature', 'landlord', 1), under(90, 'Date', 'date', 'landlord', 1))}</div>`,
        ],
        () =>
          `Lessees’ initials: 1. ${us(6, 'initials', 'tenant', 1)} 2. ${us(6, 'initials', 'tenant', 2)} 3. ${us(6, 'initials', 'tenant', 3)} 4. ${us(6, 'initials', 'tenant', 4)}`,
      ),
    ),
  },
  {
    name: 'underlined-browser',
    how: 'browser',
    body: sheet(`
<h1>Bill of sale</h1>
<p>For ${spaces(24, 'text')} dollars the seller sells to the buyer the things at ${spaces(50, 'text')}:</p>
<ol><li>${spaces(60, 'text')}</li><li>${spaces(60, 'text')}</li><li>${spaces(60, 'text')}</li></ol>
<p>Delivered on ${spaces(24, 'date')} between ${spaces(10, 'text')} and ${spaces(10, 'text')} o’clock.</p>
<p style="margin-top:34pt">${spaces(60, 'signature', 'seller', 1)} ${nb(8)} ${spaces(28, 'date', 'seller', 1)}<br>Seller ${nb(58)} Date</p>
<p style="margin-top:34pt">${spaces(60, 'signature', 'buyer', 1)} ${nb(8)} ${spaces(28, 'date', 'buyer', 1)}<br>Buyer ${nb(58)} Date</p>`),
  },
  {
    name: 'poder-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Autorización de venta', 'H'),
        p(
          `Entre ${odt.us(30, 'name', 'seller', 1)} (el vendedor) y la correduría ${odt.us(26, 'text')}, por el inmueble en ${odt.us(34, 'text')}, a ${odt.us(4, 'date')} de ${odt.us(12, 'date')} de 20${odt.us(3, 'date')}.`,
        ),
        p(`Honorarios: ${odt.us(5, 'text')} % del precio de $ ${odt.us(12, 'text')}.`),
        p(`Iniciales del vendedor: 1. ${odt.us(5, 'initials', 'seller', 1)} 2. ${odt.us(5, 'initials', 'seller', 2)}`),
        p(`${odt.tab('signature', 'seller', 1)}<text:tab/>${odt.tab('date', 'seller', 1)}`, 'G'),
        p('EL VENDEDOR<text:tab/>Fecha', 'S'),
        p(`${odt.tab('signature', 'broker', 1)}<text:tab/>${odt.tab('date', 'broker', 1)}`, 'G'),
        p('EL CORREDOR<text:tab/>Fecha', 'S'),
        p(t('')),
      ].join(''),
    ),
  },
  {
    name: 'columns-bare-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Release of the deposit</h1>
<p>The escrow holder pays $${us(10, 'text')} to ${us(30, 'text')} and the rest to ${us(30, 'text')}.</p>
<div class="two" style="margin-top:20pt"><div><b>SELLER</b><br>${under(190, 'Signature', 'signature', 'seller', 1)}<br>${under(190, 'Signature', 'signature', 'seller', 2)}<br>${under(120, 'Date', 'date', 'seller', 1)}</div>
<div><b>BUYER</b><br>${under(190, 'Signature', 'signature', 'buyer', 1)}<br>${under(190, 'Signature', 'signature', 'buyer', 2)}<br>${under(120, 'Date', 'date', 'buyer', 1)}</div></div>
<table style="margin-top:20pt"><tr><th>Holder of a key</th><th>Returned on</th><th>Initials</th></tr>${[1, 2].map(() => `<tr>${cell('text')}${cell('date')}${cell('initials')}</tr>`).join('')}</table>`),
  },
];
