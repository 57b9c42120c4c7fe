/**
 * Forms with ways of printing of their own, written when the rules had learnt from the five sets beside this one, and
 * measured apart: nothing but the roles of boxed initials was learnt from it. Invented papers of the demo world.
 */
import { box, cell } from '../blank';
import type { FormSource } from '../types';
import { frame, link, odt, over, pages, row, sheet, spaces, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const sixth: FormSource[] = [
  {
    name: 'assignment-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Assignment of a contract</h1>
<p>The buyer under the contract dated ${us(12, 'date')} with ${us(32, 'name', 'seller', 1)}, as seller, for the house at ${us(36, 'text')} hands all rights to ${us(32, 'text')} for $${us(9, 'text')}, payable before ${us(12, 'date')}.</p>
<p>The seller agrees: [${link(nb(3), 'checkbox')}] yes [${link(nb(3), 'checkbox')}] no</p>
${row(under(200, 'Buyer’s signature', 'signature', 'buyer', 1), under(80, 'Date', 'date', 'buyer', 1))}
${row(under(200, 'Buyer’s signature', 'signature', 'buyer', 2), under(80, 'Date', 'date', 'buyer', 2))}
${row(under(200, 'Seller’s signature', 'signature', 'seller', 1), under(80, 'Date', 'date', 'seller', 1))}`),
  },
  {
    name: 'listing-pages-browser',
    how: 'browser',
    body: sheet(
      pages(
        [
          `<h1 class="sans">Listing of a dwelling</h1><p class="sans">${us(40, 'name', 'seller', 1)} (“Owner”) engages ${us(36, 'text')} (“Firm”) from ${us(12, 'date')} until ${us(12, 'date')} to sell ${us(40, 'text')}.</p><p class="sans">Asking price: $${us(12, 'text')}. Fee: ${us(5, 'text')}% of the price or $${us(9, 'text')}.</p>`,
          `<p class="sans">Lock box: ${box()} yes ${box()} no. Sign: ${box()} yes ${box()} no. Open days from ${us(5, 'text')} to ${us(5, 'text')}.</p>`,
          `<table class="sans"><tr><th></th><th>Signature</th><th>Date</th></tr><tr><td>Owner 1</td>${cell('signature', 'seller', 1)}${cell('date', 'seller', 1)}</tr><tr><td>Owner 2</td>${cell('signature', 'seller', 2)}${cell('date', 'seller', 2)}</tr><tr><td>Listing agent</td>${cell('signature', 'broker', 1)}${cell('date', 'broker', 1)}</tr></table>`,
        ],
        (n) =>
          `<div style="border-top:1px solid #555;padding-top:4pt">Listing, page ${n} <span style="float:right">Owner initials: ${us(6, 'initials', 'seller', 1)} ${us(6, 'initials', 'seller', 2)}</span></div>`,
      ),
    ),
  },
  {
    name: 'storage-library',
    how: 'library',
    body: [
      { text: 'Storage in the cellar', fontSize: 17, margin: [0, 0, 0, 8] },
      {
        text: [
          'The manager lets room ',
          link('______', 'text'),
          ' to ',
          link('____________________________', 'name', 'tenant', 1),
          ' (tenant) from ',
          link('____________', 'date'),
          '. Rent: $',
          link('________', 'text'),
          '. Key no. ',
          link('_____', 'text'),
          '.',
        ],
      },
      { text: 'The tenant initials:', bold: true, margin: [0, 10, 0, 4] },
      ...['Nothing that burns is kept there.', 'The door is locked.', 'The room is emptied at the end.'].map((s) => ({
        text: [link('______', 'initials', 'tenant', 1), `  ${s}`],
        margin: [0, 4, 0, 4],
      })),
      {
        columns: [
          [link('______________________________', 'signature', 'tenant', 1), { text: 'Tenant', fontSize: 8 }],
          [link('______________', 'date', 'tenant', 1), { text: 'Date', fontSize: 8 }],
        ],
        columnGap: 20,
        margin: [0, 34, 0, 0],
      },
      {
        columns: [
          [link('______________________________', 'signature', 'manager', 1), { text: 'Manager', fontSize: 8 }],
          [link('______________', 'date', 'manager', 1), { text: 'Date', fontSize: 8 }],
        ],
        columnGap: 20,
        margin: [0, 24, 0, 0],
      },
    ],
  },
  {
    name: 'cancel-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Cancelling of a contract', 'H'),
        p(
          `The parties to the contract of ${odt.us(12, 'date')} about ${odt.us(34, 'text')} end it. The deposit of $${odt.us(9, 'text')} goes to ${odt.us(26, 'text')} within ${odt.us(4, 'text')} days.`,
        ),
        p(
          `${odt.link('☐', 'checkbox')} the buyer   ${odt.link('☐', 'checkbox')} the seller   pays the costs of ${odt.us(5, 'text')} %.`,
        ),
        p(
          `Seller’s initials: ${odt.us(5, 'initials', 'seller', 1)} ${odt.us(5, 'initials', 'seller', 2)}   Buyer’s initials: ${odt.us(5, 'initials', 'buyer', 1)} ${odt.us(5, 'initials', 'buyer', 2)}`,
        ),
        ...(
          [
            ['Seller', 'seller', 1],
            ['Seller', 'seller', 2],
            ['Buyer', 'buyer', 1],
            ['Buyer', 'buyer', 2],
          ] as const
        ).flatMap(([who, r, o]) => [
          p(`${odt.tab('signature', r, o)}<text:tab/>${odt.tab('date', r, o)}`, 'G'),
          p(`${who}<text:tab/>Date of signature`, 'S'),
        ]),
      ].join(''),
    ),
  },
  {
    name: 'visit-turned-sheet',
    how: 'sheet',
    turned: true,
    body: sheet(`
<h1>Right to visit</h1>
<p>The tenants let visitors in on ${spaces(18, 'date')} between ${spaces(8, 'text')} and ${spaces(8, 'text')} o’clock; at most ${spaces(6, 'text')} visits a week.</p>
<p>Initials: ${frame(36, 'initials', 'tenant', 1)} (tenant 1) ${frame(36, 'initials', 'tenant', 2)} (tenant 2)</p>
${row(over(190, 'Tenant 1', 'signature', 'tenant', 1), over(80, 'Date', 'date', 'tenant', 1))}
${row(over(190, 'Tenant 2', 'signature', 'tenant', 2), over(80, 'Date', 'date', 'tenant', 2))}
${row(over(190, 'Landlord or agent', 'signature', 'landlord', 1), over(80, 'Date', 'date', 'landlord', 1))}`),
  },
];
