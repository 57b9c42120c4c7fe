/** Forms kept out of what the reader's rules were written on; only measured. */
import { box, cell, html, label, odt, rule, us } from './blank';
import type { FormSource } from './types';

const { p, t } = odt;
const link = (text: string, kind: string, role?: string, o?: number) => `<a href="${label(kind, role, o)}">${text}</a>`;

export const kept: FormSource[] = [
  {
    name: 'escrow-browser',
    how: 'browser',
    body: html(
      `
<h1>Instructions to the escrow holder</h1>
<p>To: ${rule(260, 'text')}</p>
<p>The buyer has paid an initial deposit. Buyers and sellers ask the holder to pay out as follows:</p>
<table><tr><th>To whom</th><th>Amount</th><th>On</th></tr><tr>${cell('text')}${cell('text')}${cell('date')}</tr><tr>${cell('text')}${cell('text')}${cell('date')}</tr></table>
<p style="margin-top:12pt">${box()} by check ${box()} by wire, account number ${us(18, 'text')}</p>
<div class="g">
${[
  ['Seller 1', 'seller', 1],
  ['Seller 2', 'seller', 2],
  ['Buyer 1', 'buyer', 1],
  ['Buyer 2', 'buyer', 2],
]
  .map(
    ([who, r, o]) =>
      `<div><div class="small">Signature of ${who}</div><div style="height:22pt"></div>${rule(200, 'signature', r as string, o as number)}<div style="margin-top:6pt">Date: ${rule(100, 'date', r as string, o as number)}</div></div>`,
  )
  .join('')}</div>
<p style="margin-top:26pt">${us(6, 'initials', 'buyer', 1)} Buyer 1 initials &nbsp;&nbsp; ${us(6, 'initials', 'buyer', 2)} Buyer 2 initials &nbsp;&nbsp; ${us(6, 'initials', 'seller', 1)} Seller 1 initials</p>`,
      '.g{display:grid;grid-template-columns:1fr 1fr;gap:22pt;margin-top:16pt}',
    ),
  },
  {
    name: 'sublet-browser',
    how: 'browser',
    body: html(
      `
<h1>Consent to sublet</h1>
<p>Landlord (“Lessor”) and Tenant (“Lessee”) have a lease dated ${us(14, 'date')}. The subtenant is ${us(28, 'name', 'tenant')}.</p>
<p>The consent ends on ${us(14, 'date')}. A copy goes to the address ${us(36, 'text')}.</p>
<table class="sig"><tr><td>Lessor’s signature${link('&nbsp;', 'signature', 'landlord', 1)}</td><td>Date${link('&nbsp;', 'date', 'landlord', 1)}</td></tr>
<tr><td>Lessee’s signature${link('&nbsp;', 'signature', 'tenant', 1)}</td><td>Date${link('&nbsp;', 'date', 'tenant', 1)}</td></tr>
<tr><td>Co-Lessee’s signature${link('&nbsp;', 'signature', 'tenant', 2)}</td><td>Date${link('&nbsp;', 'date', 'tenant', 2)}</td></tr></table>
<p style="margin-top:20pt">Agreed: [${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] yes [${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] no</p>
<p>Landlord’s initials (${link('&nbsp;'.repeat(12), 'initials', 'landlord', 1)}) &nbsp; Tenant’s initials (${link('&nbsp;'.repeat(12), 'initials', 'tenant', 1)}) (${link('&nbsp;'.repeat(12), 'initials', 'tenant', 2)})</p>`,
      '.sig td{font-size:8.5pt;vertical-align:top}.sig a{display:block;height:20pt}',
    ),
  },
  {
    name: 'corretaje-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Contrato de corretaje', 'U'),
        p(`Propietario: ${odt.us(34, 'name', 'seller', 1)}`),
        p(`Dirección de la propiedad: ${odt.us(36, 'text')}`),
        p(`Precio de venta: $ ${odt.us(14, 'text')}. El pago inicial no cambia.`),
        p(`Vigente desde el ${odt.us(14, 'date')} hasta el ${odt.us(14, 'date')}.`),
        p(`${odt.link('☐', 'checkbox')} Con llave  ${odt.link('☐', 'checkbox')} Con letrero`),
        p('Firmas', 'H'),
        p(`${odt.tab('signature', 'seller', 1)}<text:tab/>${odt.tab('date', 'seller', 1)}`, 'G'),
        p('Vendedor 1<text:tab/>Fecha', 'S'),
        p(`${odt.tab('signature', 'seller', 2)}<text:tab/>${odt.tab('date', 'seller', 2)}`, 'G'),
        p('Vendedor 2<text:tab/>Fecha', 'S'),
        p(`${odt.tab('signature', 'broker', 1)}<text:tab/>${odt.tab('date', 'broker', 1)}`, 'G'),
        p('Corredor<text:tab/>Fecha', 'S'),
        p(
          `Iniciales de los vendedores: (${odt.us(6, 'initials', 'seller', 1)}) (${odt.us(6, 'initials', 'seller', 2)})`,
          'G',
        ),
      ].join(''),
    ),
  },
  {
    name: 'inventory-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Furniture that stays', 'U'),
        p(t('List of rooms ') + '<text:tab/>' + t('4'), 'D'),
        p(`Between ${odt.us(24, 'name', 'landlord', 1)} (landlord) and ${odt.us(24, 'name', 'tenant', 1)} (tenant).`),
        odt.table(4, [
          odt.row(['Thing', 'In', 'Out', 'Remarks']),
          odt.row(['Bed', odt.link('☐', 'checkbox'), odt.link('☐', 'checkbox'), odt.link('\u00a0'.repeat(38), 'text')]),
          odt.row([
            'Table',
            odt.link('☐', 'checkbox'),
            odt.link('☐', 'checkbox'),
            odt.link('\u00a0'.repeat(38), 'text'),
          ]),
        ]),
        p(`Other things: ${odt.us(50, 'text')}`, 'G'),
        p(`Checked on ${odt.us(14, 'date')} by ${odt.us(20, 'text')}`),
        p(`Signature of tenant: ${odt.us(34, 'signature', 'tenant', 1)}`, 'G'),
        p(`Date signed: ${odt.us(14, 'date', 'tenant', 1)}`),
        p(`Signature of property manager: ${odt.us(26, 'signature', 'manager', 1)}`, 'G'),
        p(`Date signed: ${odt.us(14, 'date', 'manager', 1)}`),
        p(`Tenant initials: ${odt.us(6, 'initials', 'tenant', 1)}`),
      ].join(''),
    ),
  },
  {
    name: 'lead-library',
    how: 'library',
    body: [
      { text: 'LEAD PAINT: NOTICE AND ACKNOWLEDGMENT', fontSize: 15, bold: true },
      { text: '--------------------------------------------------------------------------', margin: [0, 2] },
      { text: 'Seller’s disclosure (initial each line)', bold: true, margin: [0, 8] },
      { text: [us(6, 'initials', 'seller', 1), ' (a) Seller knows of no lead paint.'], margin: [0, 4] },
      { text: [us(6, 'initials', 'seller', 1), ' (b) Seller has no reports.'], margin: [0, 4] },
      { text: 'Purchaser’s acknowledgment (initial each line)', bold: true, margin: [0, 8] },
      { text: [us(6, 'initials', 'buyer', 1), ' (c) Purchaser has got copies of all reports.'], margin: [0, 4] },
      { text: [us(6, 'initials', 'buyer', 1), ' (d) Purchaser has got the pamphlet.'], margin: [0, 4] },
      { text: 'Agent’s acknowledgment (initial)', bold: true, margin: [0, 8] },
      { text: [us(6, 'initials', 'broker', 1), ' (e) Agent has told the seller what must be done.'], margin: [0, 4] },
      {
        columns: [
          [
            { text: us(30, 'signature', 'seller', 1), margin: [0, 22, 0, 0] },
            { text: 'Seller' },
            { text: us(30, 'signature', 'buyer', 1), margin: [0, 22, 0, 0] },
            { text: 'Purchaser' },
            { text: us(30, 'signature', 'broker', 1), margin: [0, 22, 0, 0] },
            { text: 'Agent' },
          ],
          [
            { text: us(16, 'date', 'seller', 1), margin: [0, 22, 0, 0] },
            { text: 'Date' },
            { text: us(16, 'date', 'buyer', 1), margin: [0, 22, 0, 0] },
            { text: 'Date' },
            { text: us(16, 'date', 'broker', 1), margin: [0, 22, 0, 0] },
            { text: 'Date' },
          ],
        ],
      },
    ],
  },
  {
    name: 'rider-library',
    how: 'library',
    body: [
      { text: 'Rider on boats', fontSize: 18, bold: true },
      { text: ['Berth no. ', us(8, 'text'), '   Name of the boat: ', us(22, 'text')], margin: [0, 8] },
      { text: ['Length ', us(6, 'text'), ' ft   Year built ', us(6, 'text')], margin: [0, 4] },
      {
        text: [
          'The tenant pays $ ',
          us(8, 'text'),
          ' a month from the ',
          us(4, 'date'),
          ' day of ',
          us(12, 'date'),
          ', 20',
          us(3, 'date'),
          ' on.',
        ],
        margin: [0, 4],
      },
      { text: 'ACCEPTED', bold: true, margin: [0, 12] },
      { text: ['Tenant ', us(32, 'signature', 'tenant', 1), '  Date ', us(12, 'date', 'tenant', 1)], margin: [0, 10] },
      { text: ['Tenant ', us(32, 'signature', 'tenant', 2), '  Date ', us(12, 'date', 'tenant', 2)], margin: [0, 10] },
      {
        text: ['Guarantor ', us(30, 'signature', 'guarantor', 1), '  Date ', us(12, 'date', 'guarantor', 1)],
        margin: [0, 10],
      },
      {
        text: ['Landlord ', us(30, 'signature', 'landlord', 1), '  Date ', us(12, 'date', 'landlord', 1)],
        margin: [0, 10],
      },
      {
        text: ['Initials of tenants: ', us(6, 'initials', 'tenant', 1), ', ', us(6, 'initials', 'tenant', 2)],
        margin: [0, 10],
      },
    ],
  },
];
