/** Forms printed by a browser that the reader's rules were written on. Invented papers of the demo world. */
import { box, cell, field, html, link, rule, us } from '../blank';
import type { FormSource } from '../types';

export const browserForms: FormSource[] = [
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
];
