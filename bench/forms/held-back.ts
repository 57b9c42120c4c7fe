/** Forms kept out of what the reader's rules were written on; only measured. */
import { box, cell, html, link, odt, rule, us } from './blank';
import type { FormSource } from './types';

const { p, t } = odt;
const space = (n: number) => '\u00a0'.repeat(n);

export const kept: FormSource[] = [
  {
    name: 'backup-browser',
    how: 'browser',
    body: html(`
<h1>Backup offer</h1><hr>
<p>Made by (Buyer): ${rule(240, 'name', 'buyer', 1)}</p>
<p>If the first contract ends, this offer counts. Buyer deposits $${us(10, 'text')} no later than ${us(14, 'date')}. The initial contract is not touched.</p>
<p>${box()} with an agent &nbsp; ${box()} without an agent</p>
<table style="margin-top:12pt"><tr><th>Who</th><th>Signature</th><th>Date</th><th>Initials</th></tr>
${[
  ['First buyer', 'buyer', 1],
  ['Second buyer', 'buyer', 2],
  ['Seller', 'seller', 1],
]
  .map(
    ([who, r, o]) =>
      `<tr><td>${who}</td>${cell('signature', r as string, o as number)}${cell('date', r as string, o as number)}${cell('initials', r as string, o as number)}</tr>`,
  )
  .join('')}</table>
<p style="margin-top:30pt">Listing agent signature: ${rule(190, 'signature', 'broker', 1)} Date: ${rule(80, 'date', 'broker', 1)}</p>`),
  },
  {
    name: 'keys-browser',
    how: 'browser',
    body: html(
      `
<h1>Receipt for keys</h1>
<p>Received from ${us(30, 'text')} on ${us(14, 'date')}: ${us(4, 'text')} keys for unit ${us(6, 'text')}.</p>
<ul><li>[${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] front door</li><li>[${link('&nbsp;&nbsp;&nbsp;', 'checkbox')}] mailbox</li></ul>
<div class="c"><div><b>Tenant</b><div class="g">${rule(200, 'signature', 'tenant', 1)}</div><span class="small">Sign</span><div class="g">${rule(200, 'date', 'tenant', 1)}</div><span class="small">Date</span></div>
<div><b>Manager</b><div class="g">${rule(200, 'signature', 'manager', 1)}</div><span class="small">Sign</span><div class="g">${rule(200, 'date', 'manager', 1)}</div><span class="small">Date</span></div></div>
<p style="margin-top:20pt">Tenant’s initials: ${us(6, 'initials', 'tenant', 1)}, ${us(6, 'initials', 'tenant', 2)}</p>`,
      '.c{display:flex;gap:40pt;margin-top:16pt}.g{margin-top:22pt}',
    ),
  },
  {
    name: 'entrega-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Acta de entrega', 'U'),
        p(`En Tern Lock, a los ${odt.us(4, 'date')} días del mes de ${odt.us(12, 'date')} de 20${odt.us(3, 'date')}.`),
        p(`Inmueble: ${odt.us(40, 'text')}`),
        p(`Llaves: ${odt.link('☐', 'checkbox')} puerta ${odt.link('☐', 'checkbox')} buzón`),
        p(`${odt.tab('signature', 'seller', 1)}<text:tab/>${odt.tab('signature', 'buyer', 1)}`, 'G'),
        p('Firma del vendedor<text:tab/>Firma del comprador', 'S'),
        p(`Nombre del vendedor: ${odt.us(26, 'name', 'seller', 1)}`, 'G'),
        p(`Nombre del comprador: ${odt.us(26, 'name', 'buyer', 1)}`),
        p(
          `Iniciales del vendedor (${odt.us(6, 'initials', 'seller', 1)})  Iniciales del comprador (${odt.us(6, 'initials', 'buyer', 1)})`,
          'G',
        ),
      ].join(''),
    ),
  },
  {
    name: 'roommate-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Agreement between roommates', 'U'),
        p(t('House rules ') + '<text:tab/>' + t('3'), 'D'),
        p(`The lease of ${odt.us(12, 'date')} is for the dwelling at ${odt.us(34, 'text')}.`),
        odt.table(3, [
          odt.row(['Tenant', 'Share of the rent', 'Initials']),
          odt.row(['Tenant 1', odt.link(space(40), 'text'), odt.link(space(40), 'initials', 'tenant', 1)]),
          odt.row(['Tenant 2', odt.link(space(40), 'text'), odt.link(space(40), 'initials', 'tenant', 2)]),
        ]),
        p(`First tenant: ${odt.us(34, 'signature', 'tenant', 1)} Date: ${odt.us(12, 'date', 'tenant', 1)}`, 'G'),
        p(`Second tenant: ${odt.us(34, 'signature', 'tenant', 2)} Date: ${odt.us(12, 'date', 'tenant', 2)}`, 'G'),
        p(`Guarantor: ${odt.us(34, 'signature', 'guarantor', 1)} Date: ${odt.us(12, 'date', 'guarantor', 1)}`, 'G'),
        p(`Guarantor’s phone: ${odt.us(18, 'text', 'guarantor', 1)}`),
      ].join(''),
    ),
  },
  {
    name: 'release-library',
    how: 'library',
    body: [
      { text: 'Release of the deposit', fontSize: 17, bold: true },
      { text: ['Escrow no. ', us(12, 'text'), '    Amount: $ ', us(12, 'text')], margin: [0, 10] },
      { text: ['Pay to: ', us(40, 'text')], margin: [0, 4] },
      { text: 'The initial deposit goes to the person named above. All sign.', margin: [0, 6] },
      ...[
        ['Buyer', 'buyer', 1],
        ['Co-Buyer', 'buyer', 2],
        ['Seller', 'seller', 1],
        ['Co-Seller', 'seller', 2],
      ].map(([who, r, o]) => ({
        text: [
          us(34, 'signature', r as string, o as number),
          '    ',
          us(14, 'date', r as string, o as number),
          `\n${who}${space(58)}Date`,
        ],
        margin: [0, 14, 0, 0],
      })),
      {
        text: ['Initials: Buyer ', us(5, 'initials', 'buyer', 1), ' Seller ', us(5, 'initials', 'seller', 1)],
        margin: [0, 18],
      },
    ],
  },
  {
    name: 'repairs-library',
    how: 'library',
    body: [
      { text: 'Repair notice', fontSize: 18, bold: true },
      { canvas: [{ type: 'line', x1: 0, y1: 2, x2: 515, y2: 2, lineWidth: 1 }] },
      {
        text: [
          'From: ',
          us(28, 'name', 'tenant', 1),
          ' (tenant)    To: ',
          us(24, 'name', 'landlord', 1),
          ' (landlord)',
        ],
        margin: [0, 10],
      },
      { text: ['What is broken: ', us(60, 'text')], margin: [0, 4] },
      { text: ['Mend it until ', us(14, 'date'), '. Call ', us(16, 'text'), ' first.'], margin: [0, 4] },
      { text: ['[', link(space(3), 'checkbox'), '] The tenant may be away.'], margin: [0, 6] },
      {
        text: ['Tenant signature: ', us(32, 'signature', 'tenant', 1), '   Date: ', us(12, 'date', 'tenant', 1)],
        margin: [0, 16],
      },
      {
        text: [
          'Received by landlord: ',
          us(30, 'signature', 'landlord', 1),
          '   Date: ',
          us(12, 'date', 'landlord', 1),
        ],
        margin: [0, 8],
      },
      { text: ['Landlord’s initials ', us(6, 'initials', 'landlord', 1)], margin: [0, 8] },
    ],
  },
];
