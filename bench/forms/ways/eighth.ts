/**
 * Forms with ways of printing of their own, written when the rules had learnt from the seven sets beside this one, and
 * measured apart, learnt from afterwards. Invented papers of the demo world.
 */
import { box, by, cell } from '../blank';
import type { FormSource } from '../types';
import { frame, link, odt, over, pages, row, rule, sheet, spaces, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const eighth: FormSource[] = [
  {
    name: 'inspection-reply-browser',
    how: 'browser',
    body: sheet(`
<h1>Reply after the inspection</h1>
<p>Property address: ${us(50, 'text')}</p>
<p>Buyer(s): ${us(36, 'name', 'buyer', 1)} Seller(s): ${us(28, 'name', 'seller', 1)}</p>
<p>Date of contract: ${us(14, 'date')}</p>
<p>${box()} Buyer takes the house as it is. ${box()} Buyer asks for these repairs:</p>
<p>${us(76, 'text')}</p><p>${us(76, 'text')}</p>
<p>${box()} Instead, the seller pays $${us(10, 'text')} at the hand-over.</p>
<p>This reply must be answered within ${us(4, 'text')} days.</p>
<table style="border:0;margin-top:20pt">${[
      ['Buyer', 'buyer', 1],
      ['Buyer', 'buyer', 2],
      ['Seller', 'seller', 1],
      ['Seller', 'seller', 2],
    ]
      .map(
        ([who, r, o]) =>
          `<tr><td style="border:0;width:60pt">${who}</td><td style="border:0;border-bottom:1px solid #222">${link(nb(60), 'signature', r as string, o as number)}</td><td style="border:0;width:40pt">Date</td><td style="border:0;border-bottom:1px solid #222">${link(nb(20), 'date', r as string, o as number)}</td></tr>`,
      )
      .join('')}</table>`),
  },
  {
    name: 'pet-clauses-sheet',
    how: 'sheet',
    body: sheet(
      pages(
        [
          `<h1>Keeping of a pet</h1><p>Tenant(s) ${us(36, 'name', 'tenant', 1)} and Landlord ${us(36, 'name', 'landlord', 1)} add this to the lease of ${us(14, 'date')}.</p><p>Kind: ${us(14, 'text')} Name of the pet: ${us(14, 'text')} Weight: ${us(6, 'text')} lbs.</p>`,
          `<p>A fee of $${us(7, 'text')} is ${box()} returned ${box()} kept.</p>${row(over(190, 'Tenant signature', 'signature', 'tenant', 1), over(150, 'Tenant name (printed)', 'name', 'tenant', 1), over(70, 'Date', 'date', 'tenant', 1))}${row(over(190, 'Tenant signature', 'signature', 'tenant', 2), over(150, 'Tenant name (printed)', 'name', 'tenant', 2), over(70, 'Date', 'date', 'tenant', 2))}${row(over(190, 'Landlord signature', 'signature', 'landlord', 1), over(150, 'Landlord name (printed)', 'name', 'landlord', 1), over(70, 'Date', 'date', 'landlord', 1))}`,
        ],
        (n) =>
          `<div style="text-align:right">Tenant initials ${us(5, 'initials', 'tenant', 1)} ${us(5, 'initials', 'tenant', 2)} Landlord initials ${us(5, 'initials', 'landlord', 1)} &nbsp; ${n}/2</div>`,
      ),
    ),
  },
  {
    name: 'gift-letter-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Letter about a gift', 'H'),
        p(`Date: ${odt.us(16, 'date')}`),
        p(
          `I, ${odt.us(34, 'name')}, give the sum of $${odt.us(10, 'text')} to the buyer, my ${odt.us(16, 'text')}, for the house at ${odt.us(34, 'text')}.`,
        ),
        p(
          `The money was paid on ${odt.us(12, 'date')} from account no. ${odt.us(14, 'text')} at ${odt.us(20, 'text')}.`,
        ),
        p('It is not to be paid back.'),
        p(`${odt.tab('signature', 'buyer', 1)}<text:tab/>${odt.tab('date', 'buyer', 1)}`, 'G'),
        p('Signature of the buyer<text:tab/>Date', 'S'),
        p(`${odt.tab('name', 'buyer', 1)}<text:tab/>${odt.tab('text', 'buyer', 1)}`, 'G'),
        p('Printed name<text:tab/>Telephone', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'well-share-library',
    how: 'library',
    more: (
      [
        ['seller', 159.1],
        ['buyer', 179.1],
      ] as const
    ).flatMap(([role, y]) => [
      by(1, 'signature', role, 1, [179.5, y, 204, 17]),
      by(1, 'date', role, 1, [387.5, y, 95, 17]),
      by(1, 'initials', role, 1, [486.5, y, 75, 17]),
    ]),
    body: [
      { text: 'Sharing of a well', fontSize: 17, margin: [0, 0, 0, 8] },
      {
        text: [
          'Agreed this ',
          link('____', 'date'),
          ' day of ',
          link('______________', 'date'),
          ', 20',
          link('___', 'date'),
          ', by the owners of lots ',
          link('______', 'text'),
          ' and ',
          link('______', 'text'),
          '.',
        ],
      },
      {
        text: ['Each pays ', link('____', 'text'), ' percent, at most $', link('________', 'text'), ' a year.'],
        margin: [0, 6, 0, 20],
      },
      {
        table: {
          widths: [120, '*', 90, 70],
          body: [
            [
              { text: 'Party', bold: true },
              { text: 'Sign here', bold: true },
              { text: 'Date', bold: true },
              { text: 'Initials', bold: true },
            ],
            ['Seller', '\u00a0', '', ''],
            ['Buyer', '\u00a0', '', ''],
          ],
        },
      },
    ],
  },
  {
    name: 'frames-foot-sheet',
    how: 'sheet',
    turned: true,
    body: sheet(
      pages(
        [
          `<h1>Use of the dock</h1><p>The owner lets the user keep a boat of ${spaces(8, 'text')} feet from ${spaces(20, 'date')} to ${spaces(20, 'date')}.</p><p>Fee: $ ${spaces(12, 'text')} [${link('&nbsp;&nbsp;', 'checkbox')}] paid [${link('&nbsp;&nbsp;', 'checkbox')}] due</p><div style="margin-top:20pt">${row(under(200, 'Owner', 'signature', 'seller', 1), under(90, 'Date', 'date', 'seller', 1))}${row(under(200, 'Buyer', 'signature', 'buyer', 1), under(90, 'Date', 'date', 'buyer', 1))}</div>`,
        ],
        () =>
          `${frame(38, 'initials', 'seller', 1)} Owner’s initials ${nb(6)} ${frame(38, 'initials', 'buyer', 1)} Buyer’s initials`,
      ),
    ),
  },
  {
    name: 'aviso-browser',
    how: 'browser',
    body: sheet(`
<h1>Aviso de venta</h1>
<p>El propietario ${rule(200, 'name', 'seller', 1)} encarga la venta del inmueble ubicado en ${rule(220, 'text')} por un precio de $ ${rule(90, 'text')} y una comisión del ${rule(40, 'text')} %.</p>
<p>Vigencia: del ${rule(90, 'date')} al ${rule(90, 'date')}.</p>
<p>${box()} con letrero ${box()} sin letrero</p>
${row(under(190, 'Firma del propietario', 'signature', 'seller', 1), under(90, 'Fecha', 'date', 'seller', 1))}
${row(under(190, 'Firma del corredor', 'signature', 'broker', 1), under(90, 'Fecha', 'date', 'broker', 1))}
<table style="margin-top:14pt"><tr><th>Documento</th><th>Entregado el</th></tr><tr><td>Escritura</td>${cell('date')}</tr></table>`),
  },
];
