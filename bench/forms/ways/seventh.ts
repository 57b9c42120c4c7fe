/**
 * Forms with ways of printing of their own, written when the rules had learnt from the sets beside this one, and
 * measured apart, learnt from afterwards. Invented papers of the demo world.
 */
import { box, cell } from '../blank';
import type { FormSource } from '../types';
import { link, odt, pages, row, rule, sheet, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const seventh: FormSource[] = [
  {
    name: 'copy-of-page-browser',
    how: 'browser',
    body: sheet(
      pages(
        [
          `<h1>Sale of a parcel</h1><p>PARTIES: ${us(36, 'name', 'seller', 1)} (“Seller”) and ${us(36, 'name', 'buyer', 1)} (“Buyer”) agree that Seller sells and Buyer buys the parcel described as ${us(50, 'text')} on these terms:</p><p>1. PURCHASE PRICE: $ ${us(14, 'text')}. Deposit held by ${us(26, 'text')}: $ ${us(12, 'text')}.</p>`,
          `<p>2. CLOSING DATE: ${us(16, 'date')}. 3. TIME TO ACCEPT: ${us(8, 'text')} a.m./p.m. on ${us(14, 'date')}.</p>`,
          `<p>BUYER: ${us(34, 'signature', 'buyer', 1)} DATE: ${us(14, 'date', 'buyer', 1)}</p><p>BUYER: ${us(34, 'signature', 'buyer', 2)} DATE: ${us(14, 'date', 'buyer', 2)}</p><p>SELLER: ${us(34, 'signature', 'seller', 1)} DATE: ${us(14, 'date', 'seller', 1)}</p><p>SELLER: ${us(34, 'signature', 'seller', 2)} DATE: ${us(14, 'date', 'seller', 2)}</p>`,
        ],
        (n) =>
          `Buyer (${us(4, 'initials', 'buyer', 1)}) (${us(4, 'initials', 'buyer', 2)}) and Seller (${us(4, 'initials', 'seller', 1)}) (${us(4, 'initials', 'seller', 2)}) acknowledge receipt of a copy of this page, which is page ${n} of 3.`,
      ),
    ),
  },
  {
    name: 'known-hazards-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Lead paint in older houses</h1>
<p><b>Seller’s Disclosure</b></p>
<p>(a) Presence of lead paint (check one):</p>
<p style="margin-left:24pt">${box()} Known, explain: ${us(40, 'text')}</p><p style="margin-left:24pt">${box()} Not known.</p>
<p><b>Purchaser’s Acknowledgment (initial)</b></p>
<p>(b) ${us(6, 'initials', 'buyer', 1)} Purchaser has received copies of all papers named above.</p>
<p>(c) ${us(6, 'initials', 'buyer', 1)} Purchaser has received the booklet.</p>
<p><b>Agent’s Acknowledgment (initial)</b></p>
<p>(d) ${us(6, 'initials', 'broker', 1)} Agent has told Seller of the duties.</p>
<table style="margin-top:20pt;border:0"><tr><td style="border:0">${under(170, 'Seller', 'signature', 'seller', 1)}</td><td style="border:0">${under(60, 'Date', 'date', 'seller', 1)}</td><td style="border:0">${under(170, 'Purchaser', 'signature', 'buyer', 1)}</td><td style="border:0">${under(50, 'Date', 'date', 'buyer', 1)}</td></tr>
<tr><td style="border:0">${under(170, 'Agent', 'signature', 'broker', 1)}</td><td style="border:0">${under(60, 'Date', 'date', 'broker', 1)}</td><td style="border:0">${under(170, 'Agent', 'signature', 'broker', 2)}</td><td style="border:0">${under(50, 'Date', 'date', 'broker', 2)}</td></tr></table>`),
  },
  {
    name: 'company-lease-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Lease of a shop', 'H'),
        p(`Landlord: ${odt.us(36, 'name', 'landlord', 1)}  Tenant: ${odt.us(36, 'name', 'tenant', 1)}`),
        p(`Address of the shop: ${odt.us(50, 'text')}`),
        p(`Monthly rent: $${odt.us(10, 'text')}   Deposit: $${odt.us(10, 'text')}   Late fee: ${odt.us(5, 'text')}%`),
        p(`Term: ${odt.us(5, 'text')} months, beginning ${odt.us(14, 'date')} and ending ${odt.us(14, 'date')}.`),
        p(
          `Use: ${odt.link('☐', 'checkbox')} shop  ${odt.link('☐', 'checkbox')} office  ${odt.link('☐', 'checkbox')} other: ${odt.us(20, 'text')}`,
        ),
        p('LANDLORD', 'H'),
        p(`By: ${odt.us(34, 'signature', 'landlord', 1)}  Its: ${odt.us(20, 'text', 'landlord', 1)}`),
        p(`Date: ${odt.us(14, 'date', 'landlord', 1)}`),
        p('TENANT', 'H'),
        p(`By: ${odt.us(34, 'signature', 'tenant', 1)}  Its: ${odt.us(20, 'text', 'tenant', 1)}`),
        p(`Date: ${odt.us(14, 'date', 'tenant', 1)}`),
      ].join(''),
    ),
  },
  {
    name: 'answers-library',
    how: 'library',
    body: [
      { text: 'What the seller knows', fontSize: 17, margin: [0, 0, 0, 8] },
      {
        text: [
          'Property: ',
          link('________________________________________', 'text'),
          '  Owned since: ',
          link('____________', 'date'),
        ],
      },
      ...['Does the roof leak?', 'Was there ever a flood?', 'Is the well shared?'].map((q) => ({
        columns: [
          { width: 260, text: q },
          { text: [link('____', 'checkbox') as never, ' Yes  '] },
          { text: [link('____', 'checkbox') as never, ' No'] },
        ],
        margin: [0, 5, 0, 0],
      })),
      {
        text: ['If yes, explain: ', link('______________________________________________________', 'text')],
        margin: [0, 10, 0, 0],
      },
      {
        text: [
          'Seller’s signature ',
          link('______________________________', 'signature', 'seller', 1),
          ' Date ',
          link('____________', 'date', 'seller', 1),
        ],
        margin: [0, 34, 0, 0],
      },
      {
        text: [
          'Seller’s signature ',
          link('______________________________', 'signature', 'seller', 2),
          ' Date ',
          link('____________', 'date', 'seller', 2),
        ],
        margin: [0, 20, 0, 0],
      },
      { text: 'I have received a copy of this statement.', margin: [0, 20, 0, 0] },
      {
        text: [
          'Buyer’s signature ',
          link('______________________________', 'signature', 'buyer', 1),
          ' Date ',
          link('____________', 'date', 'buyer', 1),
        ],
        margin: [0, 20, 0, 0],
      },
    ],
  },
  {
    name: 'offices-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Exclusive right to sell</h1>
<p>Owner: ${rule(300, 'name', 'seller', 1)}</p>
<p>Listing office: ${rule(200, 'text')} License #: ${rule(90, 'text')}</p>
<p>The listing runs from ${rule(90, 'date')} to midnight of ${rule(90, 'date')}. Price $${rule(90, 'text')}. Commission: ${rule(40, 'text')} percent.</p>
<p>Owner’s Initials ${rule(40, 'initials', 'seller', 1)} ${rule(40, 'initials', 'seller', 2)}</p>
<div class="two"><div>${row(under(200, '(Owner)', 'signature', 'seller', 1))}${row(under(200, '(Owner)', 'signature', 'seller', 2))}</div><div>${row(under(110, '(Date)', 'date', 'seller', 1))}${row(under(110, '(Date)', 'date', 'seller', 2))}</div></div>
<p style="margin-top:24pt">By: ${rule(190, 'signature', 'broker', 1)} (listing agent) Date: ${rule(80, 'date', 'broker', 1)}</p>`),
  },
  {
    name: 'hold-table-browser',
    how: 'browser',
    body: sheet(`
<h1>Hand-over of the deposit</h1>
<table><tr><td>Amount</td>${cell('text')}</tr><tr><td>Paid to</td>${cell('text')}</tr><tr><td>Paid on</td>${cell('date')}</tr></table>
<p style="margin-top:18pt"><b>SIGNATURES</b></p>
<table><tr><th>Name (print)</th><th>Signature</th><th>Date</th></tr>
<tr>${cell('name')}${cell('signature')}${cell('date')}</tr><tr>${cell('name')}${cell('signature')}${cell('date')}</tr></table>
<p style="margin-top:14pt">Escrow no. ${us(12, 'text')} ${nb(4)} File no. ${us(12, 'text')}</p>`),
  },
];
