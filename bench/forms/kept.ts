/** Forms kept out of what the reader's rules were written on; only measured. */
import { box, cell, html, label, odt, rule, us } from './blank';
import type { FormSource } from './types';

const { p, t } = odt;
const link = (text: string, kind: string, role?: string, o?: number) => `<a href="${label(kind, role, o)}">${text}</a>`;

export const kept: FormSource[] = [
  {
    name: 'option-browser',
    how: 'browser',
    body: html(
      `
<h1>Option to buy after a lease</h1>
<p>Landlord/seller: ${us(28, 'name', 'landlord', 1)} &nbsp; Tenant/buyer: ${us(28, 'name', 'tenant', 1)}</p>
<p>The option costs $${us(10, 'text')} and may be used until ${us(14, 'date')}. The initial lease stays in force.</p>
<p>Purchase price: $${rule(100, 'text')} &nbsp; Earnest money: $${rule(90, 'text')}</p>
<p>${box()} The rent counts towards the price &nbsp; ${box()} It does not</p>
<h2>Signatures</h2>
<table class="s"><tr>${cell('signature', 'landlord', 1)}${cell('date', 'landlord', 1)}</tr><tr><td class="c">Landlord signature</td><td class="c">Date</td></tr>
<tr>${cell('signature', 'tenant', 1)}${cell('date', 'tenant', 1)}</tr><tr><td class="c">Tenant signature</td><td class="c">Date</td></tr></table>
<p style="margin-top:24pt;text-align:right">Initials: Landlord ${us(5, 'initials', 'landlord', 1)} Tenant ${us(5, 'initials', 'tenant', 1)}</p>`,
      '.s td{border:0}.s tr:nth-child(odd) td{border-bottom:1px solid #000}.c{font-size:8.5pt}',
    ),
  },
  {
    name: 'walk-browser',
    how: 'browser',
    body: html(`
<h1>Final walk-through</h1>
<p>Property address ${rule(300, 'text')}</p>
<p>Buyers looked at the property on ${rule(100, 'date')} and found it:</p>
<p>[${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] as agreed &nbsp; [${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] not as agreed, because:</p>
<p>${rule(500, 'text')}</p><p>${rule(500, 'text')}</p>
<p>Buyers initial here to waive a second look: ${us(6, 'initials', 'buyer', 1)} ${us(6, 'initials', 'buyer', 2)}</p>
<p style="margin-top:26pt">${rule(230, 'signature', 'buyer', 1)} &nbsp; ${rule(110, 'date', 'buyer', 1)}<br><span class="small" style="display:inline-block;width:240pt">Buyer</span><span class="small">Date</span></p>
<p style="margin-top:26pt">${rule(230, 'signature', 'buyer', 2)} &nbsp; ${rule(110, 'date', 'buyer', 2)}<br><span class="small" style="display:inline-block;width:240pt">Buyer</span><span class="small">Date</span></p>
<h2>Buyer’s agent</h2>
<p style="margin-top:16pt">Agent signature: ${rule(200, 'signature', 'buyer_broker', 1)} License #: ${rule(90, 'text')}</p>`),
  },
  {
    name: 'oferta-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Oferta de compra', 'U'),
        p(`Fecha de la oferta: ${odt.us(16, 'date')}`),
        p(`Nombre del comprador: ${odt.us(34, 'name', 'buyer', 1)}`),
        p(`Precio ofrecido: $ ${odt.us(14, 'text')}   Pago inicial: $ ${odt.us(12, 'text')}`),
        p(`Financiamiento: ${odt.link('☐', 'checkbox')} hipoteca ${odt.link('☐', 'checkbox')} contado`),
        odt.table(3, [
          odt.row(['Parte', 'Firma', 'Fecha']),
          odt.row([
            'Comprador 1',
            odt.link('\u00a0'.repeat(40), 'signature', 'buyer', 1),
            odt.link('\u00a0'.repeat(40), 'date', 'buyer', 1),
          ]),
          odt.row([
            'Comprador 2',
            odt.link('\u00a0'.repeat(40), 'signature', 'buyer', 2),
            odt.link('\u00a0'.repeat(40), 'date', 'buyer', 2),
          ]),
          odt.row([
            'Vendedor 1',
            odt.link('\u00a0'.repeat(40), 'signature', 'seller', 1),
            odt.link('\u00a0'.repeat(40), 'date', 'seller', 1),
          ]),
        ]),
        p(
          `Iniciales: Comprador ${odt.us(6, 'initials', 'buyer', 1)} ${odt.us(6, 'initials', 'buyer', 2)} Vendedor ${odt.us(6, 'initials', 'seller', 1)}`,
          'G',
        ),
      ].join(''),
    ),
  },
  {
    name: 'pets-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Pet addendum', 'U'),
        p(t('Rules ') + '<text:tab/>' + t('2'), 'D'),
        p(`Pet name: ${odt.us(18, 'text')} Breed: ${odt.us(16, 'text')} Weight: ${odt.us(6, 'text')} lb`),
        p(`Pet deposit $${odt.us(8, 'text')} is paid on or before ${odt.us(14, 'date')}.`),
        p('Resident agrees to the rules above.'),
        p(
          `Resident 1 signature: ${odt.us(30, 'signature', 'tenant', 1)} Date: ${odt.us(12, 'date', 'tenant', 1)}`,
          'G',
        ),
        p(`Print name: ${odt.us(30, 'name', 'tenant', 1)}`),
        p(
          `Resident 2 signature: ${odt.us(30, 'signature', 'tenant', 2)} Date: ${odt.us(12, 'date', 'tenant', 2)}`,
          'G',
        ),
        p(`Print name: ${odt.us(30, 'name', 'tenant', 2)}`),
        p(`Owner’s agent: ${odt.us(30, 'signature', 'broker', 1)} Date: ${odt.us(12, 'date', 'broker', 1)}`, 'G'),
        p(`Title: ${odt.us(20, 'text', 'broker', 1)}`),
      ].join(''),
    ),
  },
  {
    name: 'extension-library',
    how: 'library',
    body: [
      { text: 'Extension of a listing', fontSize: 17, bold: true },
      { canvas: [{ type: 'line', x1: 0, y1: 3, x2: 515, y2: 3, lineWidth: 0.6 }] },
      { text: ['The listing agreement dated ', us(14, 'date'), ' now ends on ', us(14, 'date'), '.'], margin: [0, 10] },
      { text: ['Price: $', us(14, 'text'), '     Fee: ', us(5, 'text'), ' %'], margin: [0, 6] },
      { text: 'Owner', bold: true, margin: [0, 12, 0, 0] },
      {
        text: ['Signature ', us(34, 'signature', 'seller', 1), '  Date ', us(12, 'date', 'seller', 1)],
        margin: [0, 10],
      },
      { text: 'Co-owner', bold: true, margin: [0, 6, 0, 0] },
      {
        text: ['Signature ', us(34, 'signature', 'seller', 2), '  Date ', us(12, 'date', 'seller', 2)],
        margin: [0, 10],
      },
      { text: 'Listing broker', bold: true, margin: [0, 6, 0, 0] },
      { text: ['By: ', us(38, 'signature', 'broker', 1), '  Date ', us(12, 'date', 'broker', 1)], margin: [0, 10] },
      {
        text: ['Owner’s initials ', us(6, 'initials', 'seller', 1), ' ', us(6, 'initials', 'seller', 2)],
        margin: [0, 10],
      },
    ],
  },
  {
    name: 'rent-library',
    how: 'library',
    body: [
      { text: 'NOTICE OF A NEW RENT', fontSize: 16, bold: true, alignment: 'center' },
      { text: '==========================================', alignment: 'center' },
      { text: ['To: ', us(32, 'name', 'tenant', 1), ' (tenant)'], margin: [0, 10] },
      { text: ['From ', us(14, 'date'), ' on the rent is $', us(10, 'text'), ' a month.'], margin: [0, 4] },
      {
        text: ['Given on this ', us(4, 'date'), ' day of ', us(12, 'date'), ', 20', us(3, 'date'), ' by'],
        margin: [0, 4],
      },
      { text: us(36, 'signature', 'manager', 1), margin: [0, 24, 0, 0] },
      { text: 'Property manager', fontSize: 9 },
      {
        text: ['Tenant 1: ', us(30, 'signature', 'tenant', 1), '  Dated: ', us(12, 'date', 'tenant', 1)],
        margin: [0, 16, 0, 0],
      },
      {
        text: ['Tenant 2: ', us(30, 'signature', 'tenant', 2), '  Dated: ', us(12, 'date', 'tenant', 2)],
        margin: [0, 10],
      },
      {
        text: ['( ', us(5, 'initials', 'tenant', 1), ' ) ( ', us(5, 'initials', 'tenant', 2), ' ) Tenants’ initials'],
        margin: [0, 8],
      },
    ],
  },
];
