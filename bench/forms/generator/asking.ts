/** What forms ask besides signing, and what is only there to be read: preambles, tables, boxes, lists, sums. */
import type { PlaceKind } from '@gatepath/core/reading';
import { label } from '../blank';
import { blank, tick, type Drawn } from './blanks';
import type { Random } from './random';
import { nameOf, peopleOf, type Manner } from './manner';
import { BESIDE, PEOPLE, TICKS, type Role } from './wording';

export function preamble(
  m: Manner,
  [a, b]: [Role, Role],
  fill: (kind: PlaceKind, w: number, who?: { role: Role; ordinal: number } | null) => string,
): string {
  const { r } = m;
  const names = (role: Role) =>
    peopleOf(m, [role])
      .slice(0, 2)
      .map((who) => fill('name', r.int(110, 190), who))
      .join(m.language === 'en' ? ' and ' : ' y ');
  const [A, B] = [m.called[a][0], m.called[b][0]];
  if (m.language === 'es')
    return `<p>Este contrato se celebra el ${fill('date', 80)} entre ${names(a)} (“${A}”) y ${names(b)} (“${B}”).</p>`;
  return r.of([
    `<p>This agreement is made on ${fill('date', 80)} between ${names(a)} (“${A}”) and ${names(b)} (“${B}”).</p>`,
    `<p>${A}: ${names(a)}</p><p>${B}: ${names(b)}</p>`,
    `<p>The ${A.toLowerCase()}, ${names(a)}, and the ${B.toLowerCase()}, ${names(b)}, agree:</p>`,
    `<p>Between ${r.of(PEOPLE)} (the “${A}”) and ${r.of(PEOPLE)} (the “${B}”), on the property at ${fill('text', 200)}.</p>`,
    `<p>${A}(s): ${names(a)} Property: ${fill('text', 180)}</p>`,
    `<p>To the ${A.toLowerCase()}: ${names(a)}</p><p>From the ${B.toLowerCase()}: ${names(b)}</p><p>Date: ${fill('date', 90)}</p>`,
    `<p>${A}: ${names(a)} &nbsp; ${B}: ${names(b)}</p><p>Premises: ${fill('text', 220)}</p>`,
    `<p>This is an addendum to the agreement dated ${fill('date', 80)} of ${names(a)} (“${A}”), for the property known as ${fill('text', 160)}, with ${names(b)} (“${B}”).</p>`,
    `<p>Name of ${A.toLowerCase()}: ${names(a)}</p><p>Name of ${B.toLowerCase()}: ${names(b)}</p>`,
    `<p>For value received, the undersigned ${names(a)} (“${A}”) promises what is written below to ${names(b)} (“${B}”) under the agreement dated ${fill('date', 80)}.</p>`,
    `<p>The ${A.toLowerCase()} ${names(a)} pays $${fill('text', 60)} to the ${B.toLowerCase()} ${names(b)} by ${fill('date', 70)}.</p>`,
    `<p>Offer made by ${names(a)}, ${r.of(['as', 'the'])} ${A.toLowerCase()}, to ${names(b)}, ${r.of(['as', 'the'])} ${B.toLowerCase()}.</p>`,
    `<p>${names(a)}, <b>${A}</b>, and ${names(b)}, <b>${B}</b>, have agreed as follows:</p>`,
    `<p>BY AND BETWEEN ${names(a)}, hereafter “${A}”, of ${fill('text', 120)}, and ${names(b)}, hereafter “${B}”.</p>`,
    `<p>I, ${names(a)}, the ${A.toLowerCase()}, give notice to ${names(b)}, the ${B.toLowerCase()}, that I will move out on ${fill('date', 80)}.</p>`,
  ]);
}

/** Returns initials in the margin, or in a corner, of every page. */
export function marginOf(m: Manner, role: Role): string {
  const { r } = m;
  const at = r.of(['top:0;right:0', 'top:38%;right:-34pt', 'top:30%;left:-40pt', 'top:55%;right:-30pt']);
  const people = peopleOf(m, [role]);
  const upright = !at.startsWith('top:0');
  const many = people.length;
  return `<div style="position:fixed;${at};font-size:7pt;line-height:1.2">${people
    .map(
      (who) =>
        `<div style="${upright ? 'margin-bottom:8pt' : 'display:inline-block;margin-left:6pt'}">${blank(r, r.of(['frame', 'rule']), 'initials', who, 28)}<br>${nameOf(m, who, many)}</div>`,
    )
    .join('')}</div>`;
}

/** Returns what forms ask besides signing: things with captions on each side, and people with their particulars. */
export function asking(m: Manner, sides: [Role, Role]): string {
  const { r } = m;
  const side = r.of(['left', 'left', 'below', 'above', 'grid'] as const);
  const whose = r.is(0.4) ? r.of(peopleOf(m, sides)) : null;
  const heading = whose && r.is(0.75) ? headingOf(m, whose) : '';
  const things = r.shuffled(THINGS[m.language]).slice(0, r.int(2, 6));
  const one = ([words, kind]: readonly [string, PlaceKind]) => {
    // Under a heading that names a person everything is asked of that person.
    const of = heading || kind === 'name' ? whose : null;
    const line = blank(r, m.lines, kind, of, r.int(60, 190));
    const caption =
      whose && kind === 'name' && !heading
        ? `${words} ${m.language === 'en' ? 'of' : 'del'} ${m.called[whose.role][0].toLowerCase()}`
        : words;
    if (side === 'left')
      return `<span style="display:inline-block;margin-right:12pt">${caption}${r.is(0.9) ? ':' : ''} ${line}</span>`;
    return `<span style="display:inline-block;margin:${side === 'above' ? 11 : 6}pt 12pt 0 0;vertical-align:top">${side === 'above' ? `<small>${caption}</small><br>${line}` : `${line}<br><small>${caption}</small>`}</span>`;
  };
  const kept = things.filter(([, kind]) => kind !== 'name' || whose);
  if (side !== 'grid')
    return `${heading}<div style="margin:4pt 0 6pt">${kept.map(one).join(r.is(0.5) ? '<br>' : ' ')}</div>`;
  const cells = kept.map(
    ([words, kind]) =>
      `<td style="vertical-align:top;padding:2pt 4pt 8pt"><small>${words}</small><br>${blank(r, 'nothing', kind, heading || kind === 'name' ? whose : null, 100)}</td>`,
  );
  return `${heading}<table style="margin:6pt 0"><tr>${cells.slice(0, 3).join('')}</tr></table>`;
}

/** Returns a heading over what is asked of one person. */
function headingOf(m: Manner, who: { role: Role; ordinal: number }): string {
  const name = nameOf(m, who, m.people[who.role] ?? 1);
  return m.r.of([
    `<p style="margin:8pt 0 2pt"><b>${name}</b></p>`,
    `<p style="margin:8pt 0 2pt"><b>${name.toUpperCase()}</b></p>`,
    m.language === 'en'
      ? `<p style="margin:8pt 0 2pt">About the ${name.toLowerCase()}:</p>`
      : `<p style="margin:8pt 0 2pt">Sobre el ${name}:</p>`,
  ]);
}

/** Returns the parties at the head of a form, in lines, cells or a table: names, and what else is asked of them. */
export function partiesTable(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const people = peopleOf(m, roles);
  const many = (role: Role) => m.people[role] ?? 1;
  const extra = r.is(0.5) ? r.of(BESIDE[m.language]) : null;
  // A fact of the deal beside the people is nobody's.
  const fact = r.is(0.25) ? r.of(FACTS[m.language]) : null;
  const way = r.of(['lines', 'below', 'cells', 'rows', 'above'] as const);
  const name = (who: (typeof people)[number], w = r.int(110, 200), drawn = m.lines) => blank(r, drawn, 'name', who, w);
  const more = (who: (typeof people)[number], drawn = m.lines) =>
    extra ? blank(r, drawn, 'text', who, r.int(70, 120)) : '';
  const called = (who: (typeof people)[number]) => nameOf(m, who, many(who.role));
  switch (way) {
    case 'lines':
      return people.map((w) => `<p>${called(w)}: ${name(w)}${extra ? ` ${extra}: ${more(w)}` : ''}</p>`).join('');
    case 'below':
      return people
        .map(
          (w) =>
            `<div style="margin:6pt 0"><span style="display:inline-block;margin-right:14pt">${name(w)}<br><small>${called(w)}</small></span>${extra ? `<span style="display:inline-block">${more(w)}<br><small>${extra}</small></span>` : ''}</div>`,
        )
        .join('');
    case 'above':
      return people
        .map(
          (w) =>
            `<div style="margin:12pt 0 0"><span style="display:inline-block;margin-right:14pt"><small>${called(w)}</small><br>${name(w)}</span>${extra ? `<span style="display:inline-block"><small>${extra}</small><br>${more(w)}</span>` : ''}</div>`,
        )
        .join('');
    case 'cells':
      return `<table style="margin:6pt 0">${people.map((w) => `<tr><td style="vertical-align:top;padding:2pt 4pt 6pt"><small>${called(w).toUpperCase()}</small><br>${name(w, 170, 'nothing')}</td>${extra ? `<td style="vertical-align:top;padding:2pt 4pt 6pt"><small>${extra.toUpperCase()}</small><br>${more(w, 'nothing')}</td>` : ''}${fact ? `<td style="vertical-align:top;padding:2pt 4pt 6pt"><small>${fact[0].toUpperCase()}</small><br>${blank(r, 'nothing', fact[1], null, 90)}</td>` : ''}</tr>`).join('')}</table>`;
    case 'rows':
      return `<table style="margin:6pt 0">${people.map((w) => `<tr><td>${called(w)}</td><td>${name(w, 170, 'nothing')}</td></tr>`).join('')}</table>`;
  }
}

/** Returns questions that are answered by a check on a short line, in a box or in a cell, under heads or beside words. */
export function answers(m: Manner): string {
  const { r } = m;
  const words =
    m.language === 'en'
      ? r.of([
          ['Yes', 'No', r.of(['Unknown', 'N/A', 'Not known'])],
          ['Yes', 'No', 'N/A'],
          ['Good', 'Fair', 'Poor'],
          ['OK', 'Damaged', 'Missing'],
          ['Received', 'Waived', 'N/A'],
        ])
      : ['S\u00ed', 'No', 'No s\u00e9'];
  const heads = words.slice(0, r.int(2, 3));
  const asked = r.shuffled(TICKS[m.language]).slice(0, r.int(3, 9));
  const width = r.int(14, 30);
  const short = r.of<Drawn>(['underscores', 'rule', 'nothing', 'frame']);
  const at = (w = width) => blank(r, short, 'checkbox', null, w);
  const way = r.of(['table', 'line', 'before'] as const);
  if (way === 'before') return asked.map((w) => `<p>${at()} ${w}</p>`).join('');
  if (way === 'line')
    return asked
      .map(
        (w, i) =>
          `<p>${i + 1}. ${w} ${heads.map((h) => (r.is(0.8) ? `${at()} ${h}` : `${h} ${at()}`)).join(' &nbsp; ')}</p>`,
      )
      .join('');
  return `<table style="margin:6pt 0"><tr><th>${m.language === 'en' ? 'Question' : 'Pregunta'}</th>${heads.map((h) => `<th>${h}</th>`).join('')}${r.is(0.3) ? '<th>Remarks</th>' : ''}</tr>${asked
    .map((w) => `<tr><td>${w}</td>${heads.map(() => `<td>${at(20)}</td>`).join('')}</tr>`)
    .join('')}</table>`;
}

/** Returns the HTML of a table that lists rooms, documents or sums, with cells to fill in. */
export function itemTable(m: Manner): string {
  const { r } = m;
  const items =
    m.language === 'en'
      ? r.of([
          ['Kitchen', 'Bath', 'Bedroom', 'Hall', 'Porch', 'Cellar'],
          ['Rent share', 'Deposit share', 'Power', 'Water', 'Internet'],
          ['Survey', 'Well report', 'Bylaws', 'Receipt'],
          ['', '', '', ''],
        ])
      : ['Cocina', 'Ba\u00f1o', 'Sala', 'Patio'];
  const heads: (readonly [string, PlaceKind])[] = r
    .shuffled<readonly [string, PlaceKind]>(
      m.language === 'en'
        ? [
            ['Move-in', 'text'],
            ['Move-out', 'text'],
            ['Remarks', 'text'],
            ['Amount', 'text'],
            ['Condition', 'text'],
            ['Date received', 'date'],
            ['Copies', 'text'],
            ['Due', 'date'],
            ['Damaged', 'checkbox'],
          ]
        : [
            ['Entrada', 'text'],
            ['Salida', 'text'],
            ['Monto', 'text'],
            ['Fecha', 'date'],
          ],
    )
    .slice(0, r.int(1, 4));
  const rows = items.slice(0, r.int(2, items.length));
  return `<table style="margin:6pt 0"><tr><th>${m.language === 'en' ? r.of(['Item', 'Room', 'Document', '']) : 'Concepto'}</th>${heads.map(([h]) => `<th>${h}</th>`).join('')}</tr>${rows
    .map(
      (item) =>
        `<tr><td>${item || blank(r, 'nothing', 'text', null, 70)}</td>${heads.map(([, kind]) => `<td>${blank(r, 'nothing', kind, null, r.int(20, 80))}</td>`).join('')}</tr>`,
    )
    .join('')}</table>`;
}

/** Returns a numbered list of lines to write on. */
export function numberedLines(m: Manner): string {
  const { r } = m;
  const width = r.int(150, 380);
  const style = r.of(['%.', '(%)', '%)', '% -']);
  return `<p>${m.language === 'en' ? r.of(['Repairs asked for:', 'Items that stay:', 'Documents received:', `The ${m.called[Object.keys(m.people)[0] as Role][0].toLowerCase()} asks for these repairs:`]) : 'Reparaciones:'}</p>${Array.from(
    { length: r.int(2, 8) },
    (_, i) =>
      `<p>${style.replace('%', String(i + 1))} ${blank(r, m.lines === 'dots' ? 'rule' : m.lines, 'text', null, width)}</p>`,
  ).join('')}`;
}

/** Returns boxes for the letters of one answer. */
export function comb(m: Manner): string {
  const { r } = m;
  const n = r.int(4, 14);
  const kind = r.is(0.4) ? 'date' : 'text';
  const one = `<i style="display:inline-block;width:${r.int(11, 15)}pt;height:${r.int(13, 17)}pt;border:0.7pt solid #333;margin-right:${r.of([0, 0, 2])}pt;vertical-align:middle"></i>`;
  const caption =
    kind === 'date'
      ? m.language === 'en'
        ? 'Date of offer'
        : 'Fecha'
      : m.language === 'en'
        ? r.of(['Postal code', 'Tax lot', 'Account'])
        : 'Cuenta';
  return `<p>${caption} <a href="${label(kind)}" style="display:inline-block">${one.repeat(n)}</a></p>`;
}

/** Returns sums with rules over and under them, where nothing is to be filled in. */
export function sums(m: Manner): string {
  const { r } = m;
  const rows = r
    .shuffled(['Price', 'Less deposit', 'Taxes to date', 'Credit for repairs', 'Balance due'])
    .slice(0, r.int(2, 5));
  const lines = rows.map(
    (w, i) =>
      `<div style="display:flex;justify-content:space-between;width:${r.of([60, 80, 100])}%"><span>${w}${r.is(0.5) ? ' ' + '.'.repeat(r.int(20, 60)) : ''}</span><span style="${i === rows.length - 1 ? 'border-top:0.7pt solid #222;border-bottom:2pt double #222' : r.is(0.3) ? 'border-bottom:0.5pt solid #444' : ''}">${r.int(100, 400_000).toLocaleString('en-US')}.00</span></div>`,
  );
  return `<div style="margin:6pt 0">${lines.join('')}</div>`;
}

/** Returns several lines to write on. */
export function writtenLines(m: Manner): string {
  const { r } = m;
  const asks =
    m.language === 'en' ? r.of(['Other terms:', 'Explain:', 'Remarks', 'Describe the repairs:']) : 'Observaciones:';
  const width = r.of([60, 80, 92]);
  const line = () =>
    `<p style="margin:3pt 0"><a href="${label('text')}" style="display:inline-block;width:${width}%;border-bottom:0.7pt solid #222;height:1.2em">&nbsp;</a></p>`;
  return `<p>${asks}</p>${Array.from({ length: r.int(1, 4) }, line).join('')}`;
}

/** Returns a line that is filled already: nothing is asked for there. */
export function filledLine(m: Manner, sides: [Role, Role]): string {
  const { r } = m;
  const role = r.of(sides);
  return r.of([
    `<p>${m.called[role][0]}: <u>${r.of(PEOPLE)}</u></p>`,
    `<p>${m.language === 'en' ? 'Property' : 'Inmueble'}: <u>12 Tollgate Lane, Quayside</u></p>`,
    `<p>${m.language === 'en' ? 'Prepared by' : 'Preparado por'}: ${r.of(PEOPLE)}, <u>${r.int(1, 12)}/${r.int(1, 28)}/2026</u></p>`,
  ]);
}

/** Facts of a deal that stand beside its people. */
const FACTS: Record<Manner['language'], readonly (readonly [string, PlaceKind])[]> = {
  en: [
    ['Date of agreement', 'date'],
    ['Lease dated', 'date'],
    ['Closing on', 'date'],
    ['Property', 'text'],
    ['Price', 'text'],
    ['Unit', 'text'],
  ],
  es: [
    ['Fecha del contrato', 'date'],
    ['Inmueble', 'text'],
  ],
};

const THINGS: Record<Manner['language'], readonly (readonly [string, PlaceKind])[]> = {
  en: [
    ['Address', 'text'],
    ['Phone', 'text'],
    ['Email', 'text'],
    ['Loan number', 'text'],
    ['Parcel no.', 'text'],
    ['County', 'text'],
    ['Amount', 'text'],
    ['Monthly rent', 'text'],
    ['Employer', 'text'],
    ['Date of birth', 'date'],
    ['Move-in date', 'date'],
    ['Expiration date', 'date'],
    ['Closing date', 'date'],
    ['Closing', 'date'],
    ['Lease dated', 'date'],
    ['Date of agreement', 'date'],
    ['Listing begins', 'date'],
    ['Listing ends', 'date'],
    ['Day of leaving', 'date'],
    ['Possession', 'date'],
    ['Effective', 'date'],
    ['Property', 'text'],
    ['Premises', 'text'],
    ['Rent a month', 'text'],
    ['Deposit held', 'text'],
    ['Price', 'text'],
    ['Position', 'text'],
    ['Name', 'name'],
    ['Full name', 'name'],
    ['Association', 'text'],
    ['Name of association', 'text'],
    ['Unit', 'text'],
    ['Vehicle', 'text'],
    ['Emergency contact', 'text'],
    ['Bank', 'text'],
    ['File no.', 'text'],
  ],
  es: [
    ['Domicilio', 'text'],
    ['Teléfono', 'text'],
    ['Correo', 'text'],
    ['Condado', 'text'],
    ['Monto', 'text'],
    ['Fecha de entrada', 'date'],
    ['Nombre', 'name'],
    ['Banco', 'text'],
  ],
};

export function ticks(m: Manner): string {
  const { r } = m;
  const words = r.shuffled(TICKS[m.language]).slice(0, r.int(2, 6));
  const line = (w: string) => (r.is(0.85) ? `${tick(r)} ${w}` : `${w} ${tick(r)}`);
  if (r.is(0.3))
    return `<table><tr><th></th><th>Yes</th><th>No</th></tr>${words.map((w) => `<tr><td>${w}</td><td>${tick(r)}</td><td>${tick(r)}</td></tr>`).join('')}</table>`;
  return r.is(0.5) ? words.map((w) => `<p>${line(w)}</p>`).join('') : `<p>${words.map(line).join(' &nbsp; ')}</p>`;
}

export function detailTable(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const rows = r.shuffled(BESIDE[m.language]).slice(0, r.int(2, 4));
  const name = m.language === 'en' ? 'Name' : 'Nombre';
  const heads = roles.map((role) => `<th>${nameOf(m, { role, ordinal: 1 }, 1)}</th>`).join('');
  const all = [[name, 'name'] as const, ...rows.map((x) => [x, 'text'] as const)];
  return `<table style="margin:6pt 0"><tr><th></th>${heads}</tr>${all.map(([w, kind]) => `<tr><td>${w}</td>${roles.map((role) => `<td>${blank(r, 'nothing', kind, { role, ordinal: 1 }, 120)}</td>`).join('')}</tr>`).join('')}</table>`;
}

export const feeTable = (r: Random) =>
  `<table style="margin:6pt 0"><tr><th>Charge</th><th>Amount</th></tr>${['Cleaning', 'Late charge', 'Key', 'Parking']
    .slice(0, r.int(2, 4))
    .map((w) => `<tr><td>${w}</td><td>$${r.int(10, 300)}.00</td></tr>`)
    .join('')}</table>`;
