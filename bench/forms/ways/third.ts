/**
 * Forms with ways of printing of their own, written while the rules stood as they were after the first two sets, and
 * measured apart, learnt from afterwards. Invented papers of the demo world.
 */
import { box, cell } from '../blank';
import type { FormSource } from '../types';
import { frame, link, odt, over, pages, row, rule, sheet, spaces, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);
const QUAYS = ['The quay is kept clear.', 'No fire on the deck.', 'The gate is locked at night.'];

export const third: FormSource[] = [
  {
    name: 'quay-rules-browser',
    how: 'browser',
    body: sheet(`
<h1>Rules of the quay</h1>
<p>Berth ${us(6, 'text')}, let to ${us(32, 'name', 'tenant', 1)} (the “Tenant”) by ${us(32, 'name', 'landlord', 1)} (the “Landlord”) from ${us(14, 'date')}.</p>
<p><b>Tenant to initial each rule</b></p>
${QUAYS.map((s) => `<p>${us(6, 'initials', 'tenant', 1)} ${s}</p>`).join('')}
<p style="margin-top:30pt">Tenant ${rule(200, 'signature', 'tenant', 1)} Date ${rule(80, 'date', 'tenant', 1)}</p>
<p style="margin-top:20pt">Landlord ${rule(200, 'signature', 'landlord', 1)} Date ${rule(80, 'date', 'landlord', 1)}</p>`),
  },
  {
    name: 'repairs-answer-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Answer to the buyer’s list of repairs</h1>
<p>In reply to the list dated ${us(12, 'date')} the seller agrees to the items numbered ${us(20, 'text')} and to pay at most $${us(10, 'text')} for them. The work is done before ${us(12, 'date')}.</p>
<p>${box()} The seller declines all other items. ${box()} The seller offers ${us(6, 'text')}% of the price instead.</p>
<p class="small">The buyer has ${us(4, 'text')} days to accept.</p>
${row(under(220, 'Seller’s signature', 'signature', 'seller', 1), under(110, 'Date and time', 'date', 'seller', 1))}
${row(under(220, 'Seller’s signature', 'signature', 'seller', 2), under(110, 'Date and time', 'date', 'seller', 2))}
<h2>Buyer’s decision</h2>
<p>${box()} accepted ${box()} not accepted</p>
${row(under(220, 'Buyer’s signature', 'signature', 'buyer', 1), under(110, 'Date and time', 'date', 'buyer', 1))}
${row(under(220, 'Buyer’s signature', 'signature', 'buyer', 2), under(110, 'Date and time', 'date', 'buyer', 2))}`),
  },
  {
    name: 'long-lease-browser',
    how: 'browser',
    body: sheet(
      pages(
        [
          `<h1 class="sans">Lease for a dwelling</h1><p class="sans">This lease is made on the ${us(4, 'date')} day of ${us(12, 'date')}, 20${us(3, 'date')} between ${us(40, 'name', 'landlord', 1)}, hereinafter “Lessor”, and ${us(40, 'name', 'tenant', 1)}, hereinafter “Lessee”.</p><p class="sans">Premises: ${us(50, 'text')}</p><p class="sans">Term: from ${us(12, 'date')} through ${us(12, 'date')}.</p>`,
          `<p class="sans">Rent is $${us(8, 'text')} a month, late after the ${us(4, 'text')} of the month; interest at ${us(5, 'text')} percent. Deposit $${us(8, 'text')}.</p><p class="sans">Pets: ${box()} none ${box()} these: ${us(30, 'text')}</p>`,
          `<p class="sans">Signed by the parties:</p><div class="two" style="margin-top:20pt"><div><b>LESSOR</b><br>${under(180, 'Sign', 'signature', 'landlord', 1)}<br>${under(180, 'Print', 'name', 'landlord', 1)}<br>${under(100, 'Date', 'date', 'landlord', 1)}</div><div><b>LESSEE</b><br>${under(180, 'Sign', 'signature', 'tenant', 1)}<br>${under(180, 'Print', 'name', 'tenant', 1)}<br>${under(100, 'Date', 'date', 'tenant', 1)}</div></div>`,
        ],
        (n) =>
          `<table style="width:auto;float:right"><tr><td>Lessor ${link(nb(10), 'initials', 'landlord', 1)}</td><td>Lessee ${link(nb(10), 'initials', 'tenant', 1)}</td></tr></table>Initial each page — ${n}/3`,
      ),
    ),
  },
  {
    name: 'garage-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Use of a garage', 'H'),
        p(
          `The owner, ${odt.us(28, 'name', 'landlord', 1)}, lets the resident, ${odt.us(28, 'name', 'tenant', 1)}, use garage no. ${odt.us(5, 'text')} from ${odt.us(12, 'date')} for $${odt.us(7, 'text')} a month.`,
        ),
        p(`Car: make ${odt.us(14, 'text')} plate ${odt.us(12, 'text')}`),
        p(`${odt.link('☐', 'checkbox')} opener handed over   ${odt.link('☐', 'checkbox')} key handed over`),
        p(
          `Resident’s initials: ${odt.us(6, 'initials', 'tenant', 1)}   Owner’s initials: ${odt.us(6, 'initials', 'landlord', 1)}`,
        ),
        p(`${odt.tab('signature', 'landlord', 1)}<text:tab/>${odt.tab('date', 'landlord', 1)}`, 'G'),
        p('Owner<text:tab/>Day signed', 'S'),
        p(`${odt.tab('signature', 'tenant', 1)}<text:tab/>${odt.tab('date', 'tenant', 1)}`, 'G'),
        p('Resident<text:tab/>Day signed', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'flood-notice-library',
    how: 'library',
    body: [
      { text: 'Notice of the flood line', fontSize: 17, margin: [0, 0, 0, 10] },
      {
        text: [
          'The lot at ',
          link('______________________________', 'text'),
          ' lies ',
          link('______', 'text'),
          ' feet over the line of 19',
          link('____', 'text'),
          '.',
        ],
      },
      { text: 'Buyer(s) initial beside each statement:', bold: true, margin: [0, 10, 0, 6] },
      ...['I have seen the map.', 'I may buy insurance.'].map((s) => ({
        text: [link('______', 'initials', 'buyer', 1), ' / ', link('______', 'initials', 'buyer', 2), `  ${s}`],
        margin: [0, 4, 0, 4],
      })),
      {
        columns: [
          [link('______________________________', 'signature', 'seller', 1), { text: 'Seller / date', fontSize: 9 }],
          [link('______________________________', 'signature', 'buyer', 1), { text: 'Buyer', fontSize: 9 }],
          [link('______________________________', 'signature', 'buyer', 2), { text: 'Buyer', fontSize: 9 }],
        ],
        columnGap: 14,
        margin: [0, 40, 0, 0],
      },
    ],
  },
  {
    name: 'walk-list-library',
    how: 'library',
    body: [
      { text: 'Moving in: the rooms', fontSize: 17, margin: [0, 0, 0, 10] },
      {
        text: [
          'Unit ',
          link('________', 'text'),
          ', seen on ',
          link('____________', 'date'),
          ' at ',
          link('______', 'text'),
          ' o’clock.',
        ],
      },
      {
        ul: [
          ['[ ', link('   ', 'checkbox'), ' ] windows'],
          ['[ ', link('   ', 'checkbox'), ' ] stove'],
        ].map((text) => ({ text })),
        margin: [0, 8, 0, 8],
      },
      { text: ['Remarks: ', link('______________________________________________________', 'text')] },
      {
        text: [
          'Tenant: ',
          link('______________________________', 'signature', 'tenant', 1),
          '  Signed on: ',
          link('______________', 'date', 'tenant', 1),
        ],
        margin: [0, 40, 0, 0],
      },
      {
        text: [
          'Manager: ',
          link('______________________________', 'signature', 'manager', 1),
          '  Signed on: ',
          link('______________', 'date', 'manager', 1),
        ],
        margin: [0, 24, 0, 0],
      },
    ],
  },
  {
    name: 'trust-deed-sheet',
    how: 'sheet',
    turned: true,
    body: sheet(`
<h1>Consent of a spouse</h1>
<p>I, ${spaces(44, 'name', 'seller', 2)}, agree to the sale of ${spaces(50, 'text')} by my spouse on ${spaces(20, 'date')}.</p>
${row(over(200, 'Signature of co-seller', 'signature', 'seller', 2), over(100, 'Date', 'date', 'seller', 2))}
${row(over(200, 'Name in print', 'name', 'seller', 2), over(150, 'E-mail', 'text', 'seller', 2))}
<p style="margin-top:20pt">Listing broker: ${rule(200, 'signature', 'broker', 1)} Date: ${rule(90, 'date', 'broker', 1)}</p>`),
  },
  {
    name: 'oferta-respuesta-browser',
    how: 'browser',
    body: sheet(`
<h1>Respuesta a la oferta</h1>
<p>A la oferta del ${us(14, 'date')} por el inmueble en ${us(44, 'text')}, el vendedor responde: el precio es de $ ${us(12, 'text')} y el depósito de ${us(5, 'text')} %.</p>
<p>Esta respuesta vence el ${us(14, 'date')} a las ${us(6, 'text')} horas.</p>
${row(under(200, 'Vendedor', 'signature', 'seller', 1), under(90, 'Fecha', 'date', 'seller', 1))}
${row(under(200, 'Vendedor', 'signature', 'seller', 2), under(90, 'Fecha', 'date', 'seller', 2))}
${row(under(200, 'Comprador', 'signature', 'buyer', 1), under(90, 'Fecha', 'date', 'buyer', 1))}
<p style="margin-top:24pt">Iniciales: Vendedor ${us(5, 'initials', 'seller', 1)} ${us(5, 'initials', 'seller', 2)} &nbsp; Comprador ${us(5, 'initials', 'buyer', 1)}</p>`),
  },
  {
    name: 'boxes-foot-browser',
    how: 'browser',
    body: sheet(
      pages(
        [
          `<h1>Addendum A</h1><p>To the agreement of ${us(14, 'date')} about ${us(40, 'text')}.</p><p>1. The shed stays. 2. The boat goes by ${us(14, 'date')}.</p>`,
          `<p>All else stays as it was.</p><div style="margin-top:30pt">${row(under(200, 'BUYER', 'signature', 'buyer', 1), under(200, 'SELLER', 'signature', 'seller', 1))}${row(under(100, 'DATE', 'date', 'buyer', 1), nb(36), under(100, 'DATE', 'date', 'seller', 1))}</div>`,
        ],
        () =>
          `Buyer: ${frame(40, 'initials', 'buyer', 1)} &nbsp; Seller: ${frame(40, 'initials', 'seller', 1)} &nbsp; <span class="small">(initials)</span>`,
      ),
    ),
  },
  {
    name: 'commission-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Sharing of the fee</h1>
<table><tr><th></th><th>Listing broker</th><th>Buyer’s broker</th></tr>
<tr><td>Office</td>${cell('text', 'broker', 1)}${cell('text', 'buyer_broker', 1)}</tr>
<tr><td>Share in %</td>${cell('text', 'broker', 1)}${cell('text', 'buyer_broker', 1)}</tr>
<tr><td>Signature</td>${cell('signature', 'broker', 1)}${cell('signature', 'buyer_broker', 1)}</tr>
<tr><td>Date</td>${cell('date', 'broker', 1)}${cell('date', 'buyer_broker', 1)}</tr></table>
<p style="margin-top:14pt">Paid out at the hand-over on or about ${us(14, 'date')}, no later than ${us(4, 'text')} days after it.</p>`),
  },
];
