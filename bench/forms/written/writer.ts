/** Forms set by a word processor that the reader's rules were written on. Invented papers of the demo world. */
import { odt } from '../blank';
import type { FormSource } from '../types';

const { p, t } = odt;

export const writerForms: FormSource[] = [
  {
    name: 'lease-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Lease of a dwelling', 'U'),
        p(t('1. Parties . . . . . . . . . . . . . . . . . . . . . . . . . . . . . . . . . . 1')),
        p(`Landlord: ${odt.us(34, 'name', 'landlord', 1)}`),
        p(`Tenant: ${odt.us(34, 'name', 'tenant', 1)}`),
        p(`Property address: ${odt.us(40, 'text')}`),
        p(
          t(
            '2. The rent is due on the first day of each month. An initial payment is made when the keys are handed over.',
          ),
        ),
        p(`Monthly rent: $${odt.us(12, 'text')}   Deposit: $${odt.us(12, 'text')}`),
        p(`The lease begins on ${odt.us(14, 'date')} and ends on ${odt.us(14, 'date')}.`),
        p(
          `Pets: [${odt.link('\u00a0\u00a0', 'checkbox')}] yes  [${odt.link('\u00a0\u00a0', 'checkbox')}] no   Smoking: ${odt.link('☐', 'checkbox')} yes  ${odt.link('☐', 'checkbox')} no`,
        ),
        p('3. Signatures', 'H'),
        p(`${odt.tab('signature', 'landlord', 1)}<text:tab/>${odt.tab('date', 'landlord', 1)}`, 'G'),
        p('Landlord<text:tab/>Date', 'S'),
        p(`${odt.tab('signature', 'tenant', 1)}<text:tab/>${odt.tab('date', 'tenant', 1)}`, 'G'),
        p('Tenant<text:tab/>Date', 'S'),
        p(`${odt.tab('signature', 'tenant', 2)}<text:tab/>${odt.tab('date', 'tenant', 2)}`, 'G'),
        p('Co-Tenant<text:tab/>Date', 'S'),
        p(
          `Guarantor’s signature: ${odt.us(28, 'signature', 'guarantor', 1)}  Date: ${odt.us(12, 'date', 'guarantor', 1)}`,
          'G',
        ),
        p(`Printed name: ${odt.us(28, 'name', 'guarantor', 1)}`),
        p(
          `Initials: Landlord ${odt.us(6, 'initials', 'landlord', 1)} Tenant ${odt.us(6, 'initials', 'tenant', 1)} Tenant ${odt.us(6, 'initials', 'tenant', 2)}`,
        ),
      ].join(''),
    ),
  },
  {
    name: 'purchase-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Agreement to buy and sell', 'U'),
        p(t('1. Price ') + '<text:tab/>' + t('2'), 'D'),
        p(t('2. Deposit ') + '<text:tab/>' + t('3'), 'D'),
        p(
          `This agreement is made on ${odt.us(12, 'date')} between ${odt.us(26, 'name', 'seller', 1)} (“Seller”) and ${odt.us(26, 'name', 'buyer', 1)} (“Buyer”).`,
        ),
        p(
          `Purchase price: $ ${odt.us(14, 'text')}. Initial deposit: $ ${odt.us(12, 'text')}, held by ${odt.us(20, 'text')}.`,
        ),
        p(
          `Included: ${odt.link('☐', 'checkbox')} stove ${odt.link('☐', 'checkbox')} refrigerator ${odt.link('☐', 'checkbox')} washer`,
        ),
        p('Signatures of the parties', 'H'),
        p(`Buyer: ${odt.us(34, 'signature', 'buyer', 1)} Date: ${odt.us(12, 'date', 'buyer', 1)}`, 'G'),
        p(`Buyer: ${odt.us(34, 'signature', 'buyer', 2)} Date: ${odt.us(12, 'date', 'buyer', 2)}`, 'G'),
        p(`Seller: ${odt.us(34, 'signature', 'seller', 1)} Date: ${odt.us(12, 'date', 'seller', 1)}`, 'G'),
        p(`Seller: ${odt.us(34, 'signature', 'seller', 2)} Date: ${odt.us(12, 'date', 'seller', 2)}`, 'G'),
        p(
          `Selling agent: ${odt.us(30, 'signature', 'buyer_broker', 1)} Date: ${odt.us(12, 'date', 'buyer_broker', 1)}`,
          'G',
        ),
        p(
          `Buyer’s Initials (${odt.us(6, 'initials', 'buyer', 1)}) (${odt.us(6, 'initials', 'buyer', 2)})   Seller’s Initials (${odt.us(6, 'initials', 'seller', 1)}) (${odt.us(6, 'initials', 'seller', 2)})`,
        ),
      ].join(''),
    ),
  },
  {
    name: 'rules-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('House rules and keys', 'U'),
        p(t('Every tenant initials each rule.')),
        p(`${odt.us(6, 'initials', 'tenant', 1)} Quiet after ten in the evening.`),
        p(`${odt.us(6, 'initials', 'tenant', 1)} No fire on the balcony.`),
        p(`${odt.us(6, 'initials', 'tenant', 1)} Bicycles stand in the yard.`),
        odt.table(3, [
          odt.row(['Key', 'Number', 'Handed over on']),
          odt.row(['Front door', odt.link('\u00a0'.repeat(44), 'text'), odt.link('\u00a0'.repeat(44), 'date')]),
          odt.row(['Mailbox', odt.link('\u00a0'.repeat(44), 'text'), odt.link('\u00a0'.repeat(44), 'date')]),
        ]),
        p('TENANTS', 'H'),
        p(`${odt.tab('signature', 'tenant', 1)}<text:tab/>${odt.tab('name', 'tenant', 1)}`, 'G'),
        p('Signature<text:tab/>Print name', 'S'),
        p(`${odt.tab('signature', 'tenant', 2)}<text:tab/>${odt.tab('name', 'tenant', 2)}`, 'G'),
        p('Signature<text:tab/>Print name', 'S'),
        p('PROPERTY MANAGER', 'H'),
        p(`${odt.tab('signature', 'manager', 1)}<text:tab/>${odt.tab('date', 'manager', 1)}`, 'G'),
        p('Signature<text:tab/>Date', 'S'),
      ].join(''),
    ),
  },
  {
    name: 'walkthrough-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Walk through before the hand-over', 'U'),
        p(`Unit: ${odt.us(10, 'text')}   Date of the walk through: ${odt.us(4, 'date')}`),
        p(`Tenant name(s): ${odt.us(40, 'name', 'tenant', 1)}`),
        odt.table(3, [
          odt.row(['Room', 'Condition', 'Tenant initials']),
          odt.row([
            'Kitchen',
            odt.link('\u00a0'.repeat(40), 'text'),
            odt.link('\u00a0'.repeat(40), 'initials', 'tenant', 1),
          ]),
          odt.row([
            'Bath',
            odt.link('\u00a0'.repeat(40), 'text'),
            odt.link('\u00a0'.repeat(40), 'initials', 'tenant', 1),
          ]),
        ]),
        p('Keys handed over: ' + odt.link('☐', 'checkbox') + ' front ' + odt.link('☐', 'checkbox') + ' mailbox', 'G'),
        p(
          `Landlord or agent: ${odt.us(30, 'signature', 'landlord', 1)}  Date: ${odt.us(14, 'date', 'landlord', 1)}`,
          'G',
        ),
        p(`Tenant 1: ${odt.us(36, 'signature', 'tenant', 1)}  Date: ${odt.us(14, 'date', 'tenant', 1)}`, 'G'),
        p(`Tenant 2: ${odt.us(36, 'signature', 'tenant', 2)}  Date: ${odt.us(14, 'date', 'tenant', 2)}`, 'G'),
      ].join(''),
    ),
  },
  {
    name: 'trust-writer',
    how: 'writer',
    body: odt.doc(
      [
        p('Statement of the sellers of a trust', 'U'),
        p(t('Contents ') + '<text:tab/>' + t('1'), 'D'),
        p(`Signed this ${odt.us(5, 'date')} day of ${odt.us(14, 'date')}, 20${odt.us(3, 'date')}.`),
        p(`Name of the trust: ${odt.us(36, 'text')}`),
        ...[1, 2, 3].flatMap((o) => [
          p(`${odt.tab('signature', 'seller', o)}<text:tab/>${odt.tab('date', 'seller', o)}`, 'G'),
          p(`Seller ${o}, trustee<text:tab/>Date`, 'S'),
        ]),
        p(
          `Sellers initial here: ${odt.us(6, 'initials', 'seller', 1)} ${odt.us(6, 'initials', 'seller', 2)} ${odt.us(6, 'initials', 'seller', 3)}`,
          'G',
        ),
        p('LISTING AGENT', 'H'),
        p(`Print name: ${odt.us(30, 'name', 'broker', 1)}`),
        p(`Signature: ${odt.us(32, 'signature', 'broker', 1)}`, 'G'),
        p(`License number: ${odt.us(14, 'text')}`),
      ].join(''),
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
];
