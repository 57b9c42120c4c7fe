/** The forms the reader's rules were written on. Invented papers of the demo world. */
import { box, cell, html, label, odt, rule, us } from './blank';
import type { FormSource, Labelled } from './types';

const { p, t } = odt;
const pieces = (text: string, kind: string, role?: string, o?: number) =>
  `<a href="${label(kind, role, o)}">${text}</a>`;

const link = (text: string, kind: string, role?: string, o?: number) => `<a href="${label(kind, role, o)}">${text}</a>`;
const field = (w: number, kind: string, role?: string, o?: number) =>
  `<a class="field" style="width:${w}pt" href="${label(kind, role, o)}">&nbsp;</a>`;

const by = (page: number, kind: string, role: string, ordinal: number, rect: Labelled['rect']): Labelled => ({
  page,
  kind,
  role,
  ordinal,
  rect,
});

export const written: FormSource[] = [
  {
    name: 'offer-browser',
    how: 'browser',
    body: html(`
<h1>Offer to purchase</h1>
<p>Date: ${rule(110, 'date')}</p>
<p>1. The undersigned buyer offers to buy the property at ${us(38, 'text')} in Tern Lock for the sum of $ ${us(14, 'text')}. An initial deposit of $ ${us(10, 'text')} is paid to the escrow holder.</p>
<p>2. The initial term of this offer ends on ${us(16, 'date')} at ${us(6, 'text')} o'clock. The hand-over is planned for the ${us(5, 'date')} day of ${us(14, 'date')}, 20${us(3, 'date')}.</p>
<p>3. Financing: ${box()} cash &nbsp; ${box()} loan &nbsp; ${box()} other: ${rule(120, 'text')}</p>
<h2>Additional terms</h2>
<p>${rule(500, 'text')}</p><p>${rule(500, 'text')}</p>
<hr>
<h2>Signatures</h2>
<table style="margin-top:8pt"><tr><th>Party</th><th style="width:40%">Signature</th><th>Date</th></tr>
<tr><td>Buyer 1</td>${cell('signature', 'buyer', 1)}${cell('date', 'buyer', 1)}</tr>
<tr><td>Buyer 2</td>${cell('signature', 'buyer', 2)}${cell('date', 'buyer', 2)}</tr>
<tr><td>Seller 1</td>${cell('signature', 'seller', 1)}${cell('date', 'seller', 1)}</tr></table>
<p style="margin-top:26pt">${rule(210, 'signature', 'buyer_broker', 1)} &nbsp;&nbsp; ${rule(100, 'date', 'buyer_broker', 1)}<br><span class="small">Buyer's agent (signature)</span><span class="small" style="padding-left:118pt">Date</span></p>
<p style="margin-top:30pt">Buyer's Initials ( ${us(5, 'initials', 'buyer', 1)} ) ( ${us(5, 'initials', 'buyer', 2)} ) &nbsp;&nbsp;&nbsp; Seller's Initials ( ${us(5, 'initials', 'seller', 1)} ) ( ${us(5, 'initials', 'seller', 2)} )</p>
`),
  },
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
    name: 'notice-library',
    how: 'library',
    body: [
      { text: 'Notice of showing', fontSize: 18, bold: true },
      { canvas: [{ type: 'line', x1: 0, y1: 4, x2: 515, y2: 4, lineWidth: 1 }], margin: [0, 0, 0, 10] },
      { text: ['To the tenant of ', us(30, 'text')] },
      {
        text: [
          'The manager will show the dwelling on ',
          us(14, 'date'),
          ' between ',
          us(8, 'text'),
          ' and ',
          us(8, 'text'),
          '.',
        ],
        margin: [0, 8],
      },
      { text: ['Name: ', us(30, 'name', 'manager', 1)], margin: [0, 6] },
      {
        text: ['By: ', us(34, 'signature', 'manager', 1), '   Date: ', us(14, 'date', 'manager', 1)],
        margin: [0, 14, 0, 0],
      },
      { text: 'Property manager', fontSize: 9, margin: [22, 2] },
      {
        text: [
          'I have got this notice. Tenant’s signature: ',
          us(26, 'signature', 'tenant', 1),
          ' Date: ',
          us(12, 'date', 'tenant', 1),
        ],
        margin: [0, 20],
      },
      {
        text: ['Initials ', us(6, 'initials', 'tenant', 1), ' / ', us(6, 'initials', 'tenant', 2), '   tenants'],
        margin: [0, 8],
      },
    ],
  },
  {
    name: 'compraventa-browser',
    how: 'browser',
    body: html(`
<h1>Contrato de compraventa</h1>
<p>Vendedor: ${rule(220, 'name', 'seller', 1)}</p>
<p>Comprador: ${rule(220, 'name', 'buyer', 1)}</p>
<p>Domicilio: ${rule(300, 'text')}</p>
<p>Precio: $ ${us(14, 'text')} &nbsp; Depósito inicial: $ ${us(12, 'text')}</p>
<h2>Firmas</h2>
<div style="display:flex;gap:30pt;margin-top:30pt"><div>${rule(200, 'signature', 'seller', 1)}<div class="small">Firma del vendedor</div></div><div>${rule(120, 'date', 'seller', 1)}<div class="small">Fecha</div></div></div>
<div style="display:flex;gap:30pt;margin-top:30pt"><div>${rule(200, 'signature', 'buyer', 1)}<div class="small">Firma del comprador</div></div><div>${rule(120, 'date', 'buyer', 1)}<div class="small">Fecha</div></div></div>
<p style="margin-top:30pt">Iniciales del vendedor ${us(6, 'initials', 'seller', 1)} &nbsp; Iniciales del comprador ${us(6, 'initials', 'buyer', 1)}</p>
`),
  },

  {
    name: 'disclosure-browser',
    how: 'browser',
    body: html(
      `
<h1>SELLER’S STATEMENT OF CONDITION</h1>
<p>Property: ${us(45, 'text')} &nbsp; Parcel no.: ${us(12, 'text')}</p>
<p>The seller is to initial here if the property was never lived in by the seller: ${us(6, 'initials', 'seller', 1)}</p>
<table><tr><th>Is there now, or was there ever</th><th>Yes</th><th>No</th><th>Explain</th></tr>
${['Water in the cellar', 'A roof leak', 'Work without a permit', 'A shared wall'].map((q) => `<tr><td>${q}</td><td>${box()}</td><td>${box()}</td>${cell('text')}</tr>`).join('')}</table>
<p style="margin-top:14pt">Remarks:</p><p>${rule(480, 'text')}</p><p>${rule(480, 'text')}</p>
<h2>Acknowledgment</h2>
<div style="display:grid;grid-template-columns:1fr 1fr;gap:26pt;margin-top:6pt">
${['Seller', 'Co-Seller', 'Buyer', 'Co-Buyer']
  .map((who, i) => {
    const r = i < 2 ? 'seller' : 'buyer';
    const o = (i % 2) + 1;
    return `<div><b>${who}</b><br><br>${rule(215, 'signature', r, o)}<div class="small">Signature</div><br>${rule(215, 'name', r, o)}<div class="small">Print name</div><br>${rule(110, 'date', r, o)}<div class="small">Date</div></div>`;
  })
  .join('')}</div>
<p style="margin-top:22pt;font-size:9pt">Seller’s initials: ${us(5, 'initials', 'seller', 1)} ${us(5, 'initials', 'seller', 2)} &nbsp;&nbsp;&nbsp; Buyer’s initials: ${us(5, 'initials', 'buyer', 1)} ${us(5, 'initials', 'buyer', 2)}</p>`,
      'td .box{margin:0}',
    ),
  },
  {
    name: 'brokerage-browser',
    how: 'browser',
    body: html(`
<h1 style="border-bottom:2px solid #000">Exclusive listing of a dwelling</h1>
<table style="border:0"><tr><td style="border:0;border-bottom:1px solid #999">1. Listing price</td><td style="border:0;border-bottom:1px solid #999">as agreed below</td></tr>
<tr><td style="border:0;border-bottom:1px solid #999">2. Term</td><td style="border:0;border-bottom:1px solid #999">six months</td></tr></table>
<p style="margin-top:12pt">Owner(s) of record: ${rule(230, 'name', 'seller', 1)}</p>
<p>Listing price: $${us(14, 'text')} payable in cash. The initial period starts on ${rule(90, 'date')} and ends on ${rule(90, 'date')}.</p>
<p>Broker's fee: ${us(6, 'text')} % of the price.</p>
<p>${box()} Lock box &nbsp;&nbsp; ${box()} Sign on the lawn &nbsp;&nbsp; ${box()} Pictures on the web</p>
<h2>Notice about lead paint</h2>
<p>${us(6, 'initials', 'seller', 1)} Seller has no knowledge of lead paint. (initial)</p>
<p>${us(6, 'initials', 'seller', 1)} Seller has given the buyer all reports. (initial)</p>
<h2>SELLER</h2>
<p style="margin-top:20pt">X ${rule(220, 'signature', 'seller', 1)} &nbsp; Date ${rule(90, 'date', 'seller', 1)}</p>
<p>Address: ${rule(220, 'text')} Phone: ${rule(100, 'text')}</p>
<p style="margin-top:20pt">X ${rule(220, 'signature', 'seller', 2)} &nbsp; Date ${rule(90, 'date', 'seller', 2)}</p>
<h2>LISTING BROKER</h2>
<p>Firm: ${rule(220, 'text')}</p>
<p style="margin-top:16pt">By: ${rule(220, 'signature', 'broker', 1)} &nbsp; Date ${rule(90, 'date', 'broker', 1)}</p>
<p>License no.: ${rule(120, 'text')}</p>`),
  },
  {
    name: 'arriendo-browser',
    how: 'browser',
    body: html(`
<h1>Contrato de arrendamiento</h1>
<p>En la ciudad de ${us(18, 'text')}, a los ${us(5, 'date')} días del mes de ${us(12, 'date')} de 20${us(3, 'date')}.</p>
<p>Arrendador: ${us(30, 'name', 'landlord', 1)}<br>Arrendatario: ${us(30, 'name', 'tenant', 1)}</p>
<p>La renta inicial es de $ ${us(12, 'text')} al mes. Correo electrónico: ${us(24, 'text')}</p>
<p>${box()} Amueblado &nbsp; ${box()} Sin muebles</p>
<table style="margin-top:16pt"><tr><th></th><th>Nombre</th><th>Firma</th><th>Fecha</th></tr>
<tr><td>Arrendador</td>${cell('name', 'landlord', 1)}${cell('signature', 'landlord', 1)}${cell('date', 'landlord', 1)}</tr>
<tr><td>Arrendatario 1</td>${cell('name', 'tenant', 1)}${cell('signature', 'tenant', 1)}${cell('date', 'tenant', 1)}</tr>
<tr><td>Arrendatario 2</td>${cell('name', 'tenant', 2)}${cell('signature', 'tenant', 2)}${cell('date', 'tenant', 2)}</tr>
<tr><td>Fiador</td>${cell('name', 'guarantor', 1)}${cell('signature', 'guarantor', 1)}${cell('date', 'guarantor', 1)}</tr></table>
<p style="margin-top:20pt">Iniciales: Arrendador ${us(6, 'initials', 'landlord', 1)} Arrendatario ${us(6, 'initials', 'tenant', 1)} ${us(6, 'initials', 'tenant', 2)}</p>`),
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
    name: 'addendum-library',
    how: 'library',
    body: [
      { text: 'ADDENDUM', fontSize: 18, bold: true, alignment: 'center' },
      { text: ['Addendum no. ', us(6, 'text'), ' to the agreement dated ', us(14, 'date')], margin: [0, 8] },
      { text: 'The parties change the agreement as follows:', margin: [0, 4] },
      { text: us(80, 'text'), margin: [0, 6] },
      { text: us(80, 'text'), margin: [0, 6] },
      { text: 'The initial payment stays as it was. Everything else stays as it was.', margin: [0, 6] },
      {
        columns: [
          [
            { text: 'SELLER', bold: true },
            { text: us(32, 'signature', 'seller', 1), margin: [0, 18, 0, 0] },
            { text: 'Signature', fontSize: 8 },
            { text: us(32, 'name', 'seller', 1), margin: [0, 10, 0, 0] },
            { text: 'Printed name', fontSize: 8 },
            { text: ['Date ', us(14, 'date', 'seller', 1)], margin: [0, 10] },
          ],
          [
            { text: 'BUYER', bold: true },
            { text: us(32, 'signature', 'buyer', 1), margin: [0, 18, 0, 0] },
            { text: 'Signature', fontSize: 8 },
            { text: us(32, 'name', 'buyer', 1), margin: [0, 10, 0, 0] },
            { text: 'Printed name', fontSize: 8 },
            { text: ['Date ', us(14, 'date', 'buyer', 1)], margin: [0, 10] },
          ],
        ],
        margin: [0, 20],
      },
    ],
  },
  {
    name: 'guaranty-library',
    how: 'library',
    more: [
      { page: 1, kind: 'signature', role: 'guarantor', ordinal: 1, rect: [50, 177, 254, 24] },
      { page: 1, kind: 'date', role: 'guarantor', ordinal: 1, rect: [308, 177, 254, 24] },
    ],
    body: [
      { text: 'Guaranty of a lease', fontSize: 17, bold: true },
      {
        text: [
          'The guarantor, ',
          us(28, 'name', 'guarantor', 1),
          ', answers for the rent of the dwelling at ',
          us(26, 'text'),
          '.',
        ],
        margin: [0, 8],
      },
      { text: ['Date of birth: ', us(14, 'date'), '  Telephone: ', us(16, 'text')], margin: [0, 6] },
      {
        table: {
          widths: ['*', '*'],
          body: [
            [
              [
                { text: 'Guarantor’s signature', fontSize: 9 },
                { text: ' ', fontSize: 18 },
              ],
              [
                { text: 'Date', fontSize: 9 },
                { text: ' ', fontSize: 18 },
              ],
            ],
          ],
        },
        margin: [0, 14],
      },
      {
        text: [
          'Landlord’s agent: ',
          us(30, 'signature', 'broker', 1),
          '  Date: ',
          pieces('____/____/______', 'date', 'broker', 1),
        ],
        margin: [0, 14],
      },
      {
        text: [
          'Tenant 1 initials: ',
          us(7, 'initials', 'tenant', 1),
          '    Tenant 2 initials: ',
          us(7, 'initials', 'tenant', 2),
        ],
        margin: [0, 8],
      },
    ],
  },

  {
    name: 'counter-offer-browser',
    how: 'browser',
    body: html(
      `
<h1>Counter offer no. ${us(4, 'text')}</h1>
<p class="small">Offer . . . . . . . . . . . . . . . . . . . . . . . . . . . page 1</p>
<p>This counter offer answers the offer dated ${us(14, 'date')} for the property known as ${us(34, 'text')}.</p>
<ol><li>The price is changed to $${us(12, 'text')}.</li><li>Closing takes place no later than ${us(14, 'date')}.</li><li>The initial inspection period stays as it was.</li></ol>
<p>The seller ${box()} keeps ${box()} gives up the right to take other offers.</p>
<h2>Seller’s signature</h2>
<table style="border:0;margin-top:14pt"><tr>${cell('signature', 'seller', 1, 'style="border:0"')}<td style="border:0"></td>${cell('date', 'seller', 1, 'style="border:0"')}</tr><tr>
<td style="border:0;border-top:1px solid #000;width:46%" class="small">Seller</td><td style="border:0;width:6%"></td><td style="border:0;border-top:1px solid #000" class="small">Date and time</td></tr></table>
<h2>Buyer’s answer</h2>
<p>${box()} accepted as written &nbsp; ${box()} rejected</p>
<p>Signed: ${rule(200, 'signature', 'buyer', 1)} Dated: ${rule(100, 'date', 'buyer', 1)}</p>
<p>Signed: ${rule(200, 'signature', 'buyer', 2)} Dated: ${rule(100, 'date', 'buyer', 2)}</p>
<div style="margin-top:30pt;font-size:9pt;display:flex;justify-content:space-between"><span>Buyer initials ${us(5, 'initials', 'buyer', 1)} / ${us(5, 'initials', 'buyer', 2)}</span><span>Seller initials ${us(5, 'initials', 'seller', 1)} / ${us(5, 'initials', 'seller', 2)}</span></div>`,
    ),
  },
  {
    name: 'application-browser',
    how: 'browser',
    body: html(
      `
<h1>Application of a tenant</h1>
<p>Full name<br>${field(300, 'name', 'tenant', 1)}</p>
<p>Email ${field(180, 'text')} &nbsp; Phone ${field(120, 'text')}</p>
<p>Move-in date ${field(90, 'date')} &nbsp; Number of people ${field(40, 'text')}</p>
<p>Animals: <label>${box()} Yes</label> <label>${box()} No</label></p>
<table style="margin-top:10pt"><tr><th>Address before</th><th>From</th><th>Rent</th></tr>
<tr>${cell('text')}${cell('text')}${cell('text')}</tr><tr>${cell('text')}${cell('text')}${cell('text')}</tr></table>
<p style="margin-top:14pt">The applicant says that this is true.</p>
<div style="margin-top:26pt">${rule(230, 'signature', 'tenant', 1)}<span style="display:inline-block;width:30pt"></span>${rule(110, 'date', 'tenant', 1)}</div>
<div class="small"><span style="display:inline-block;width:260pt">Applicant’s signature</span>Date</div>
<h2>For the property manager</h2>
<p>Received by: ${rule(180, 'signature', 'manager', 1)} on ${rule(90, 'date', 'manager', 1)}</p>`,
      '.field{display:inline-block;background:#e9edf5;height:15pt;vertical-align:-3pt}',
    ),
  },
  {
    name: 'reglamento-browser',
    how: 'browser',
    body: html(`
<h1>Anexo: mascotas</h1>
<p>Inquilino: ${rule(200, 'name', 'tenant', 1)} &nbsp; Teléfono: ${rule(110, 'text')}</p>
<p>Raza: ${rule(120, 'text')} &nbsp; Fecha de inicio: ${rule(90, 'date')}</p>
<p>${box()} Perro &nbsp; ${box()} Gato</p>
<p>El depósito inicial es de $ ${us(10, 'text')}.</p>
<p style="margin-top:34pt">${us(34, 'signature', 'tenant', 1)} &nbsp;&nbsp; ${us(16, 'date', 'tenant', 1)}<br><span class="small" style="display:inline-block;width:230pt">Firma del inquilino</span><span class="small">Fecha</span></p>
<p style="margin-top:30pt">${us(34, 'signature', 'landlord', 1)} &nbsp;&nbsp; ${us(16, 'date', 'landlord', 1)}<br><span class="small" style="display:inline-block;width:230pt">Firma del propietario</span><span class="small">Fecha</span></p>
<p>Iniciales del inquilino: ${us(6, 'initials', 'tenant', 1)}</p>`),
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
    name: 'repair-library',
    how: 'library',
    more: [257, 289, 321].flatMap((y, i) => [
      by(1, 'signature', i < 2 ? 'buyer' : 'seller', i < 2 ? i + 1 : 1, [208, y, 236, 29]),
      by(1, 'date', i < 2 ? 'buyer' : 'seller', i < 2 ? i + 1 : 1, [445, y, 118, 29]),
    ]),
    body: [
      { text: 'Request for repairs', fontSize: 18, bold: true },
      { canvas: [{ type: 'line', x1: 0, y1: 2, x2: 515, y2: 2, lineWidth: 0.7 }] },
      { text: ['Property: ', us(50, 'text')], margin: [0, 10] },
      { text: ['The buyer asks the seller to mend the following until ', us(14, 'date'), ':'], margin: [0, 4] },
      { text: us(84, 'text'), margin: [0, 6] },
      { text: us(84, 'text'), margin: [0, 6] },
      {
        text: [
          '[',
          link('\u00a0\u00a0\u00a0', 'checkbox'),
          '] The seller agrees.   [',
          link('\u00a0\u00a0\u00a0', 'checkbox'),
          '] The seller does not agree.',
        ],
        margin: [0, 8],
      },
      {
        table: {
          widths: [150, '*', 110],
          body: [
            ['Name', 'Signature', 'Date'],
            ...[
              ['Buyer 1', 'buyer', 1] as const,
              ['Buyer 2', 'buyer', 2] as const,
              ['Seller', 'seller', 1] as const,
            ].map(([who]) => [{ text: who, margin: [0, 6] }, '', '']),
          ],
        },
        margin: [0, 16],
      },
      {
        text: [
          'Initials: Buyer ',
          us(6, 'initials', 'buyer', 1),
          ' Buyer ',
          us(6, 'initials', 'buyer', 2),
          ' Seller ',
          us(6, 'initials', 'seller', 1),
        ],
        margin: [0, 8],
      },
    ],
  },
  {
    name: 'manager-library',
    how: 'library',
    more: [
      by(1, 'signature', 'manager', 1, [48, 175, 200, 24]),
      by(1, 'signature', 'landlord', 1, [306, 175, 200, 24]),
    ],
    body: [
      { text: 'Management of a dwelling', fontSize: 18, bold: true },
      {
        text: ['Owner: ', us(34, 'name', 'landlord', 1), ' (the landlord) rents to tenants through the manager.'],
        margin: [0, 8],
      },
      {
        text: [
          'The manager is paid ',
          us(6, 'text'),
          ' % of the rent. The lease of a tenant begins on ',
          us(12, 'date'),
          '.',
        ],
        margin: [0, 6],
      },
      {
        columns: [
          [
            { text: 'Property manager', bold: true },
            { canvas: [{ type: 'line', x1: 0, y1: 34, x2: 200, y2: 34, lineWidth: 0.7 }] },
            { text: 'Signature', fontSize: 8 },
          ],
          [
            { text: 'Landlord', bold: true },
            { canvas: [{ type: 'line', x1: 0, y1: 34, x2: 200, y2: 34, lineWidth: 0.7 }] },
            { text: 'Signature', fontSize: 8 },
          ],
        ],
        margin: [0, 18],
      },
      {
        text: ['Guarantor signs here: ', us(30, 'signature', 'guarantor', 1), ' Date ', us(12, 'date', 'guarantor', 1)],
        margin: [0, 12],
      },
      {
        text: ['Printed name of guarantor ', us(26, 'name', 'guarantor', 1), ' Tel. ', us(14, 'text')],
        margin: [0, 8],
      },
    ],
  },

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
