/**
 * Forms with ways of printing of their own, written before a rule was changed for any of them: measured apart once,
 * learnt from afterwards. Invented papers of the demo world.
 */
import { box, by, cell } from '../blank';
import type { FormSource } from '../types';
import { frame, link, odt, over, pages, row, sheet, spaces, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const second: FormSource[] = [
  {
    name: 'offer-answer-browser',
    how: 'browser',
    body: sheet(`
<h1 class="sans">Answer to an offer</h1>
<p class="sans">With regard to the offer of ${us(14, 'date')} made by ${us(36, 'name', 'buyer', 1)} (Buyer) for the premises known as ${us(48, 'text')} and owned by ${us(36, 'name', 'seller', 1)} (Seller), the Seller answers as follows.</p>
<p class="sans">1. The price becomes $${us(14, 'text')}. 2. The loan is to be granted within ${us(5, 'text')} days. 3. ${us(70, 'text')}</p>
<p class="sans">This answer ends at ${us(8, 'text')} on ${us(14, 'date')} unless accepted before.</p>
<div class="two sans" style="margin-top:34pt"><div>${under(190, 'Seller', 'signature', 'seller', 1)}<br>${under(190, 'Seller', 'signature', 'seller', 2)}<br>${under(110, 'Date', 'date', 'seller', 1)}</div><div>${under(190, 'Purchaser', 'signature', 'buyer', 1)}<br>${under(190, 'Purchaser', 'signature', 'buyer', 2)}<br>${under(110, 'Date', 'date', 'buyer', 1)}</div></div>`),
  },
  {
    name: 'terms-feet-sheet',
    how: 'sheet',
    body: sheet(
      pages(
        [
          `<h1>Purchase terms</h1><p>Made the ${us(5, 'date')} day of ${us(16, 'date')} 20${us(4, 'date')} between ${us(40, 'name', 'buyer', 1)}, buyer, and ${us(40, 'name', 'seller', 1)}, seller, for ${us(40, 'text')}.</p><p>Price: ${us(36, 'text')} dollars.</p>`,
          `<p>Interest: ${us(6, 'text')} percent a year. Between ${us(10, 'text')} and ${us(10, 'text')} days.</p><p>${box()} The stove stays. ${box()} The stove goes.</p>`,
          `<div style="margin-top:60pt">${row(under(210, 'Buyer', 'signature', 'buyer', 1), under(210, 'Seller', 'signature', 'seller', 1))}${row(under(210, 'Buyer', 'signature', 'buyer', 2), under(210, 'Seller', 'signature', 'seller', 2))}</div>`,
        ],
        (n) =>
          `<table style="width:auto"><tr><td style="border:0">Initial:</td>${cell('initials', 'buyer', 1, 'style="width:40pt"')}${cell('initials', 'buyer', 2, 'style="width:40pt"')}${cell('initials', 'seller', 1, 'style="width:40pt"')}${cell('initials', 'seller', 2, 'style="width:40pt"')}<td style="border:0">page ${n}</td></tr><tr><td style="border:0"></td><td style="border:0;font-size:8pt">Buyer 1</td><td style="border:0;font-size:8pt">Buyer 2</td><td style="border:0;font-size:8pt">Seller 1</td><td style="border:0;font-size:8pt">Seller 2</td></tr></table>`,
      ),
    ),
  },
  {
    name: 'house-feet-library',
    how: 'library',
    body: [
      { text: 'Rules of the house', fontSize: 16, margin: [0, 0, 0, 10] },
      {
        text: [
          'Quiet from ',
          link('______', 'text'),
          ' to ',
          link('______', 'text'),
          '. Rent day: the ',
          link('____', 'text'),
          ' of the month. Guests stay at most ',
          link('____', 'text'),
          ' nights.',
        ],
      },
      {
        text: ['[ ', link('    ', 'checkbox'), ' ] a dog  [ ', link('    ', 'checkbox'), ' ] no dog'],
        margin: [0, 8, 0, 40],
      },
      {
        columns: [1, 2, 3, 4].map((o) => [
          link('_________________', 'signature', 'tenant', o),
          { text: `Resident ${o}`, fontSize: 8 },
        ]),
        columnGap: 10,
        margin: [0, 0, 0, 14],
      },
      {
        columns: [1, 2, 3, 4].map((o) => [link('_________', 'date', 'tenant', o), { text: 'Date', fontSize: 8 }]),
        columnGap: 10,
      },
      {
        columns: [
          { text: 'Initials:', width: 60 },
          ...[1, 2, 3, 4].map((o) => [
            link('________', 'initials', 'tenant', o),
            { text: `Resident ${o}`, fontSize: 8 },
          ]),
        ],
        margin: [0, 240, 0, 0],
      },
    ],
  },
  {
    name: 'mietvorlage-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Lease of a boathouse', 'H'),
        p(
          `Parties: ${odt.us(30, 'name', 'landlord', 1)} of ${odt.us(26, 'text')}, called Lessor, and ${odt.us(30, 'name', 'tenant', 1)} of ${odt.us(26, 'text')}, called Lessee, agree on ${odt.us(12, 'date')}:`,
        ),
        p(
          `From ${odt.us(12, 'date')} until ${odt.us(12, 'date')} for $ ${odt.us(8, 'text')} a month and a deposit of $ ${odt.us(8, 'text')}. Interest ${odt.us(4, 'text')} %.`,
        ),
        p(
          `${odt.us(5, 'initials', 'tenant', 1)} ${odt.us(5, 'initials', 'tenant', 2)} Lessees have read the rules of the harbour (initials).`,
        ),
        p(
          `${odt.us(5, 'initials', 'tenant', 1)} ${odt.us(5, 'initials', 'tenant', 2)} Lessees have been told of the flood line (initials).`,
        ),
        p(`${odt.tab('signature', 'landlord', 1)}<text:tab/>${odt.tab('name', 'landlord', 1)}`, 'G'),
        p('Lessor<text:tab/>Lessor (print)', 'S'),
        p(`${odt.tab('signature', 'tenant', 1)}<text:tab/>${odt.tab('name', 'tenant', 1)}`, 'G'),
        p('Lessee<text:tab/>Lessee (print)', 'S'),
        p(`${odt.tab('signature', 'tenant', 2)}<text:tab/>${odt.tab('name', 'tenant', 2)}`, 'G'),
        p('Lessee<text:tab/>Lessee (print)', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'water-items-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Statement on the well</h1>
<table><tr><th style="width:60pt">Initials</th><th>The seller states</th></tr>
${['The well gives enough water all year.', 'The water was tested within two years.', 'No other house draws from it.'].map((s) => `<tr>${cell('initials', 'seller', 1)}<td>${s}</td></tr>`).join('')}</table>
<p style="margin-top:12pt">Depth: ${us(6, 'text')} feet. Dug in 19${us(3, 'text')}. Last test: ${us(14, 'date')}.</p>
<p><b>Buyer’s acknowledgment</b> (each buyer to initial)</p>
<p>${us(5, 'initials', 'buyer', 1)} ${us(5, 'initials', 'buyer', 2)} (a) has read this statement;</p>
<p>${us(5, 'initials', 'buyer', 1)} ${us(5, 'initials', 'buyer', 2)} (b) may have the water tested.</p>
${row(over(200, 'Seller', 'signature', 'seller', 1), over(90, 'Date', 'date', 'seller', 1))}
${row(over(200, 'Buyer', 'signature', 'buyer', 1), over(90, 'Date', 'date', 'buyer', 1))}
${row(over(200, 'Buyer', 'signature', 'buyer', 2), over(90, 'Date', 'date', 'buyer', 2))}`),
  },
  {
    name: 'turned-table-browser',
    how: 'browser',
    turned: true,
    body: sheet(`
<h1>Handing over of meters</h1>
<table><tr><th></th><th>Landlord</th><th>Tenant</th></tr>
<tr><td>Phone</td>${cell('text', 'landlord', 1)}${cell('text', 'tenant', 1)}</tr>
<tr><td>New address</td>${cell('text', 'landlord', 1)}${cell('text', 'tenant', 1)}</tr>
<tr><td>Signature</td>${cell('signature', 'landlord', 1)}${cell('signature', 'tenant', 1)}</tr>
<tr><td>Date</td>${cell('date', 'landlord', 1)}${cell('date', 'tenant', 1)}</tr></table>
<p style="margin-top:14pt">Meter: ${us(12, 'text')} Reading: ${us(12, 'text')} Time: ${us(8, 'text')}</p>`),
  },
  {
    name: 'office-print-browser',
    how: 'browser',
    body: sheet(`
<h1>Change of the listing price</h1>
<p>Listing of ${us(14, 'date')} for ${us(50, 'text')}: the price goes from $${us(12, 'text')} to $${us(12, 'text')}.</p>
<p style="margin-top:30pt">${us(34, 'signature', 'seller', 1)} ${nb(4)} ${us(34, 'name', 'seller', 1)}<br>Seller’s signature ${nb(34)} Seller (printed)</p>
<p style="margin-top:30pt">${us(34, 'signature', 'seller', 2)} ${nb(4)} ${us(34, 'name', 'seller', 2)}<br>Seller’s signature ${nb(34)} Seller (printed)</p>
<p style="margin-top:30pt">${us(34, 'signature', 'broker', 1)} ${nb(4)} ${us(34, 'name', 'broker', 1)} ${nb(4)} ${us(12, 'date', 'broker', 1)}<br>Agent ${nb(48)} (print) ${nb(46)} Date</p>`),
  },
  {
    name: 'underlined-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Certificate of the trustees', 'H'),
        p(
          `The trust called ${odt.us(40, 'text')} holds the parcel at ${odt.us(40, 'text')} since ${odt.us(12, 'date')}.`,
        ),
        p(
          `Trustees’ initials: 1. ${odt.us(6, 'initials', 'seller', 1)} 2. ${odt.us(6, 'initials', 'seller', 2)} (sellers)`,
        ),
        p(`${odt.tab('signature', 'seller', 1)}<text:tab/>${odt.tab('date', 'seller', 1)}`, 'G'),
        p('SELLER, trustee<text:tab/>Dated', 'S'),
        p(`${odt.tab('signature', 'seller', 2)}<text:tab/>${odt.tab('date', 'seller', 2)}`, 'G'),
        p('SELLER, trustee<text:tab/>Dated', 'S'),
        p(`${odt.tab('signature', 'buyer', 1)}<text:tab/>${odt.tab('date', 'buyer', 1)}`, 'G'),
        p('BUYER<text:tab/>Dated', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'consent-frames-sheet',
    how: 'sheet',
    body: sheet(
      pages(
        [
          `<h1>Consent to both sides</h1><p>The seller and the buyer know that ${us(34, 'text')} acts for both. The fee is ${us(5, 'text')}%, shared ${us(4, 'text')} to ${us(4, 'text')}.</p><p>[${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] agreed [${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] not agreed, because ${us(50, 'text')}</p>`,
          `<div class="two" style="margin-top:20pt"><div><b>Seller(s)</b><br>${under(190, nb(1), 'signature', 'seller', 1)}<br>${under(190, nb(1), 'signature', 'seller', 2)}</div><div><b>Buyer(s)</b><br>${under(190, nb(1), 'signature', 'buyer', 1)}<br>${under(190, nb(1), 'signature', 'buyer', 2)}</div></div>`,
        ],
        () =>
          `Seller initials ${frame(36, 'initials', 'seller', 1)}${frame(36, 'initials', 'seller', 2)} ${nb(10)} Buyer initials ${frame(36, 'initials', 'buyer', 1)}${frame(36, 'initials', 'buyer', 2)}`,
      ),
    ),
  },
  {
    name: 'spaces-browser',
    how: 'browser',
    body: sheet(`
<h1>Receipt for money held</h1>
<p>Received from ${spaces(44, 'text')} the sum of $ ${spaces(20, 'text')} on ${spaces(22, 'date')} for the offer on ${spaces(60, 'text')}.</p>
<p>It is paid out not later than ${spaces(22, 'date')}, less ${spaces(8, 'text')} % for costs.</p>
<p style="margin-top:36pt">${spaces(62, 'signature', 'broker', 1)} ${nb(6)} ${spaces(26, 'date', 'broker', 1)}<br>Broker ${nb(60)} Date</p>
<p style="margin-top:36pt">${spaces(62, 'signature', 'buyer', 1)} ${nb(6)} ${spaces(26, 'date', 'buyer', 1)}<br>Buyer ${nb(61)} Date</p>`),
  },
  {
    name: 'anexo-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Anexo al contrato de arrendamiento</h1>
<p>Entre ${us(34, 'name', 'landlord', 1)} (el arrendador) y ${us(34, 'name', 'tenant', 1)} (el arrendatario), del ${us(5, 'date')} de ${us(14, 'date')} de 20${us(3, 'date')}.</p>
<p>La renta sube a $ ${us(10, 'text')} desde el ${us(14, 'date')}; depósito: ${us(5, 'text')} % más.</p>
<p>Iniciales: ${under(50, 'Arrendador', 'initials', 'landlord', 1)}${under(50, 'Arrendatario', 'initials', 'tenant', 1)}</p>
${row(under(200, 'Arrendador', 'signature', 'landlord', 1), under(90, 'Fecha', 'date', 'landlord', 1))}
${row(under(200, 'Arrendatario', 'signature', 'tenant', 1), under(90, 'Fecha', 'date', 'tenant', 1))}`),
  },
  {
    name: 'guaranty-rows-library',
    how: 'library',
    more: (
      [
        ['guarantor', 1, 163.7],
        ['guarantor', 2, 183.7],
        ['landlord', 1, 203.7],
      ] as const
    ).flatMap(([role, o, y]) => [
      by(1, 'signature', role, o, [277.5, y, 185, 17]),
      by(1, 'date', role, o, [466.5, y, 95, 17]),
    ]),
    body: [
      { text: 'Guaranty of the rent', fontSize: 16, margin: [0, 0, 0, 10] },
      {
        text: [
          'By ',
          link('____________________________', 'name', 'guarantor', 1),
          ' (guarantor) to ',
          link('____________________________', 'name', 'landlord', 1),
          ' (landlord) for up to $',
          link('__________', 'text'),
          ' until ',
          link('______________', 'date'),
          '.',
        ],
        margin: [0, 0, 0, 30],
      },
      {
        table: {
          widths: ['*', 180, 90],
          body: [['', 'Sign here', 'Date'], ...['Guarantor', 'Guarantor', 'Landlord'].map((who) => [who, '', ''])],
        },
      },
      {
        text: [
          'Initials of the guarantors: 1. ',
          link('______', 'initials', 'guarantor', 1),
          '  2. ',
          link('______', 'initials', 'guarantor', 2),
        ],
        margin: [0, 30, 0, 0],
      },
    ],
  },
];
