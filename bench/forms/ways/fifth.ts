/**
 * Forms with ways of printing of their own, written while the rules stood as they were after the first four sets, and
 * measured apart, learnt from afterwards. Invented papers of the demo world.
 */
import { box, cell } from '../blank';
import type { FormSource } from '../types';
import { frame, link, odt, over, pages, row, sheet, spaces, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const fifth: FormSource[] = [
  {
    name: 'easement-browser',
    how: 'browser',
    body: sheet(`
<h1>Right of way</h1>
<p>Granted by ${us(34, 'name', 'seller', 1)}, owner of the lot at ${us(34, 'text')} (“Grantor”), to ${us(34, 'name', 'buyer', 1)} (“Grantee”) on the ${us(5, 'date')} day of ${us(12, 'date')}, 20${us(3, 'date')}, for $${us(8, 'text')}.</p>
<p>The way is ${us(5, 'text')} feet wide and may be used from ${us(6, 'text')} to ${us(6, 'text')} o’clock.</p>
<div class="two" style="margin-top:26pt"><div>${under(200, 'Grantor', 'signature', 'seller', 1)}</div><div>${under(200, 'Grantee', 'signature', 'buyer', 1)}</div></div>
<div class="two"><div>${under(110, 'Dated', 'date', 'seller', 1)}</div><div>${under(110, 'Dated', 'date', 'buyer', 1)}</div></div>`),
  },
  {
    name: 'checklist-sheet',
    how: 'sheet',
    body: sheet(`
<h1>What the sellers leave behind</h1>
<p>The sellers initial what they leave:</p>
<ul style="list-style:none;padding:0">${['stove', 'curtains', 'garden tools'].map((s) => `<li>${us(5, 'initials', 'seller', 1)} ${us(5, 'initials', 'seller', 2)} the ${s} as seen on the day of the visit</li>`).join('')}</ul>
<p>Left on ${us(12, 'date')} for the price of ${us(30, 'text')} dollars ($${us(8, 'text')}).</p>
${row(under(190, 'Seller 1 signature', 'signature', 'seller', 1), under(80, 'Date', 'date', 'seller', 1))}
${row(under(190, 'Seller 2 signature', 'signature', 'seller', 2), under(80, 'Date', 'date', 'seller', 2))}
${row(under(190, 'Buyer 1 signature', 'signature', 'buyer', 1), under(80, 'Date', 'date', 'buyer', 1))}`),
  },
  {
    name: 'moorage-library',
    how: 'library',
    body: [
      { text: 'Moorage for a season', fontSize: 17, margin: [0, 0, 0, 8] },
      {
        text: [
          'Made on ',
          link('____________', 'date'),
          ' between ',
          link('____________________________', 'name', 'landlord', 1),
          ' (Landlord) and ',
          link('____________________________', 'name', 'tenant', 1),
          ' (Tenant). Boat: ',
          link('________________', 'text'),
          '. Length: ',
          link('_____', 'text'),
          ' ft.',
        ],
      },
      {
        text: [
          'Fee $',
          link('________', 'text'),
          ' due on the ',
          link('____', 'text'),
          ' of the month; ',
          link('____', 'text'),
          '% after ',
          link('____', 'text'),
          ' days.',
        ],
        margin: [0, 8, 0, 30],
      },
      {
        columns: (
          [
            ['LANDLORD', 'landlord'],
            ['TENANT', 'tenant'],
          ] as const
        ).map(([who, r]) => [
          { text: who, bold: true, margin: [0, 0, 0, 16] },
          link('______________________________', 'signature', r, 1),
          { text: 'Signature', fontSize: 8, margin: [0, 0, 0, 14] },
          link('______________________________', 'name', r, 1),
          { text: 'Print name', fontSize: 8, margin: [0, 0, 0, 14] },
          link('______________', 'date', r, 1),
          { text: 'Date', fontSize: 8 },
        ]),
        columnGap: 20,
      },
      {
        text: [
          'Landlord’s initials (',
          link('______', 'initials', 'landlord', 1),
          ')   Tenant’s initials (',
          link('______', 'initials', 'tenant', 1),
          ')',
        ],
        margin: [0, 200, 0, 0],
      },
    ],
  },
  {
    name: 'ramp-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Consent to a change of the dwelling', 'H'),
        p(
          `By this paper, dated ${odt.us(12, 'date')}, the landlord allows the tenant to build ${odt.us(30, 'text')} at ${odt.us(34, 'text')}, at a cost of at most $${odt.us(8, 'text')}.`,
        ),
        p(`The work ends not later than ${odt.us(12, 'date')}. The tenant pays ${odt.us(5, 'text')} % of the cost.`),
        p(`${odt.us(6, 'initials', 'tenant', 1)} The tenant takes the change away at the end of the lease. (initial)`),
        p(`Landlord: ${odt.us(30, 'signature', 'landlord', 1)}  Date: ${odt.us(12, 'date', 'landlord', 1)}`, 'G'),
        p(`Tenant: ${odt.us(30, 'signature', 'tenant', 1)}  Date: ${odt.us(12, 'date', 'tenant', 1)}`, 'G'),
        p(`Tenant: ${odt.us(30, 'signature', 'tenant', 2)}  Date: ${odt.us(12, 'date', 'tenant', 2)}`, 'G'),
      ].join(''),
    ),
  },
  {
    name: 'two-brokers-sheet',
    how: 'sheet',
    body: sheet(
      pages(
        [
          `<h1>Agreement between offices</h1><p>${us(36, 'text')} (the listing office) and ${us(36, 'text')} (the other office) share the fee for ${us(36, 'text')}: ${us(4, 'text')}% and ${us(4, 'text')}%.</p>`,
          `<p>Paid within ${us(4, 'text')} days after the hand-over.</p><div style="margin-top:20pt">${row(under(190, 'Listing broker', 'signature', 'broker', 1), under(80, 'Date', 'date', 'broker', 1))}${row(under(190, 'Selling broker', 'signature', 'buyer_broker', 1), under(80, 'Date', 'date', 'buyer_broker', 1))}</div>`,
        ],
        (n) =>
          `<table style="width:100%"><tr><td style="border:0">Page ${n}</td><td style="border:0;text-align:right">Listing broker ${us(5, 'initials', 'broker', 1)} Selling broker ${us(5, 'initials', 'buyer_broker', 1)} <b>Initials</b></td></tr></table>`,
      ),
    ),
  },
  {
    name: 'meter-table-browser',
    how: 'browser',
    body: sheet(`
<h1>Record of the moving out</h1>
<table><tr><th>Room</th><th>State</th><th>Tenant’s initials</th><th>Manager’s initials</th></tr>
${['Kitchen', 'Bath', 'Porch'].map((r) => `<tr><td>${r}</td>${cell('text')}${cell('initials', 'tenant', 1)}${cell('initials', 'manager', 1)}</tr>`).join('')}</table>
<p style="margin-top:12pt">Keys given back: ${us(4, 'text')} on ${us(12, 'date')} at ${us(6, 'text')} ${box()} a.m. ${box()} p.m.</p>
<p style="margin-top:26pt">Tenant’s signature: ${us(32, 'signature', 'tenant', 1)} Date: ${us(12, 'date', 'tenant', 1)}</p>
<p style="margin-top:20pt">Manager’s signature: ${us(32, 'signature', 'manager', 1)} Date: ${us(12, 'date', 'manager', 1)}</p>`),
  },
  {
    name: 'option-frames-sheet',
    how: 'sheet',
    turned: true,
    body: sheet(`
<h1>Option to buy</h1>
<p>${spaces(40, 'name', 'seller', 1)} (“Owner”) gives ${spaces(40, 'name', 'buyer', 1)} (“Buyer”) the right to buy the lot until ${spaces(20, 'date')} for $ ${spaces(16, 'text')}.</p>
<p>Initials of the owner ${frame(40, 'initials', 'seller', 1)} Initials of the buyer ${frame(40, 'initials', 'buyer', 1)}</p>
${row(over(190, 'Owner’s signature', 'signature', 'seller', 1), over(90, 'Date signed', 'date', 'seller', 1))}
${row(over(190, 'Buyer’s signature', 'signature', 'buyer', 1), over(90, 'Date signed', 'date', 'buyer', 1))}`),
  },
  {
    name: 'acta-browser',
    how: 'browser',
    body: sheet(`
<h1>Acta de recibo de llaves</h1>
<p>El día ${us(12, 'date')} el arrendador entrega a ${us(34, 'name', 'tenant', 1)} (inquilino) ${us(4, 'text')} llaves de la vivienda en ${us(40, 'text')}.</p>
<p>${box()} buzón ${box()} sótano ${box()} otro: ${us(16, 'text')}</p>
<div style="margin-top:20pt">${row(under(180, 'Firma del inquilino', 'signature', 'tenant', 1), under(80, 'Fecha', 'date', 'tenant', 1), under(150, 'Nombre en letra de molde', 'name', 'tenant', 1))}${row(under(180, 'Firma del arrendador', 'signature', 'landlord', 1), under(80, 'Fecha', 'date', 'landlord', 1), under(150, 'Nombre en letra de molde', 'name', 'landlord', 1))}</div>
<p style="margin-top:16pt">Iniciales: inquilino ${us(5, 'initials', 'tenant', 1)}, arrendador ${us(5, 'initials', 'landlord', 1)}${nb(2)}</p>`),
  },
];
