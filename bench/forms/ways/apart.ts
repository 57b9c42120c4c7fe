/**
 * Forms with ways of printing of their own, written when the rules had learnt from the eight sets beside this one, and
 * kept apart: only measured. Invented papers of the demo world.
 */
import { box, cell } from '../blank';
import type { FormSource } from '../types';
import { frame, odt, over, pages, row, rule, sheet, spaces, under, us } from './parts';

const { p } = odt;
const nb = (n: number) => '\u00a0'.repeat(n);

export const apart: FormSource[] = [
  {
    name: 'extension-lease-browser',
    how: 'browser',
    body: sheet(`
<h1>The lease goes on</h1>
<p>The lease between ${us(32, 'name', 'landlord', 1)} (“Landlord”) and ${us(32, 'name', 'tenant', 1)} (“Tenant”) for ${us(40, 'text')}, which ends on ${us(14, 'date')}, goes on until ${us(14, 'date')}. The new rent is $${us(8, 'text')} a month, payable on the ${us(4, 'text')} of each month.</p>
<p>All else stays. ${box()} The deposit stays. ${box()} The deposit grows to $${us(8, 'text')}.</p>
<div class="two" style="margin-top:24pt"><div>${row(under(180, 'Landlord', 'signature', 'landlord', 1))}${row(under(90, 'Date', 'date', 'landlord', 1))}</div><div>${row(under(180, 'Tenant', 'signature', 'tenant', 1))}${row(under(90, 'Date', 'date', 'tenant', 1))}</div></div>`),
  },
  {
    name: 'buyers-acks-sheet',
    how: 'sheet',
    body: sheet(
      pages(
        [
          `<h1>What the buyer was told</h1><p>Please initial each line:</p>${['A plan of the floods was shown.', 'The price of the heating was told.', 'The fees of the association were told.'].map((s, i) => `<p>${i + 1}. ${us(6, 'initials', 'buyer', 1)} ${us(6, 'initials', 'buyer', 2)} ${s}</p>`).join('')}<p>Fees: $${us(8, 'text')} a quarter, raised last in 20${us(3, 'text')} by ${us(4, 'text')}%.</p>`,
          `<p>Signed:</p>${row(under(200, 'Buyer 1', 'signature', 'buyer', 1), under(80, 'Date', 'date', 'buyer', 1))}${row(under(200, 'Buyer 2', 'signature', 'buyer', 2), under(80, 'Date', 'date', 'buyer', 2))}${row(under(200, 'Broker for the seller', 'signature', 'broker', 1), under(80, 'Date', 'date', 'broker', 1))}`,
        ],
        (n) =>
          `Initials: Buyer 1 ${frame(36, 'initials', 'buyer', 1)} Buyer 2 ${frame(36, 'initials', 'buyer', 2)} ${nb(4)} page ${n}`,
      ),
    ),
  },
  {
    name: 'keys-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Keys and cards', 'H'),
        p(
          `On ${odt.us(12, 'date')} the manager, ${odt.us(28, 'name', 'manager', 1)}, gave the tenant, ${odt.us(28, 'name', 'tenant', 1)}, ${odt.us(4, 'text')} keys and ${odt.us(4, 'text')} cards for unit ${odt.us(6, 'text')}.`,
        ),
        p(`Lost keys cost $${odt.us(6, 'text')} each. They come back by ${odt.us(12, 'date')}.`),
        p(
          `Manager’s initials (${odt.us(5, 'initials', 'manager', 1)})   Tenant’s initials (${odt.us(5, 'initials', 'tenant', 1)})`,
        ),
        p(`Manager: ${odt.us(32, 'signature', 'manager', 1)}   Dated: ${odt.us(14, 'date', 'manager', 1)}`, 'G'),
        p(`Tenant: ${odt.us(32, 'signature', 'tenant', 1)}   Dated: ${odt.us(14, 'date', 'tenant', 1)}`, 'G'),
      ].join(''),
    ),
  },
  {
    name: 'fence-turned-browser',
    how: 'browser',
    turned: true,
    body: sheet(`
<h1>Agreement on a fence</h1>
<p>Seller: ${rule(220, 'name', 'seller', 1)} Buyer: ${rule(200, 'name', 'buyer', 1)}</p>
<table><tr><th></th><th>Seller</th><th>Buyer</th></tr><tr><td>Share of the cost</td>${cell('text', 'seller', 1)}${cell('text', 'buyer', 1)}</tr><tr><td>Phone</td>${cell('text', 'seller', 1)}${cell('text', 'buyer', 1)}</tr></table>
<p style="margin-top:10pt">Built before ${spaces(20, 'date')} at a height of ${spaces(8, 'text')} feet.</p>
${row(over(200, 'Signature of the seller', 'signature', 'seller', 1), over(80, 'Date', 'date', 'seller', 1))}
${row(over(200, 'Signature of the buyer', 'signature', 'buyer', 1), over(80, 'Date', 'date', 'buyer', 1))}`),
  },
  {
    name: 'sublease-es-sheet',
    how: 'sheet',
    body: sheet(`
<h1>Subarriendo</h1>
<p>El inquilino ${us(30, 'name', 'tenant', 1)} y el propietario ${us(30, 'name', 'landlord', 1)} acuerdan, a ${us(4, 'date')} de ${us(12, 'date')} de 20${us(3, 'date')}, que la vivienda en ${us(36, 'text')} se subarrienda desde el ${us(12, 'date')} hasta el ${us(12, 'date')} por $ ${us(8, 'text')} al mes.</p>
<p>Iniciales del inquilino ${us(5, 'initials', 'tenant', 1)} ${nb(3)} Iniciales del propietario ${us(5, 'initials', 'landlord', 1)}</p>
${row(under(190, 'Inquilino', 'signature', 'tenant', 1), under(80, 'Fecha', 'date', 'tenant', 1))}
${row(under(190, 'Propietario', 'signature', 'landlord', 1), under(80, 'Fecha', 'date', 'landlord', 1))}`),
  },
];
