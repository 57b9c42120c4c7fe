/** Tables and cards of generated forms: people with their particulars, the facts at the head, items that are answered, notaries. */
import type { PlaceKind } from '@gatepath/core/reading';
import { blank, type Drawn } from './blanks';
import { nameOf, peopleOf, type Manner } from './manner';
import type { Role } from './wording';

/** A caption with the kind of place it asks for. */
type Asked = readonly [string, PlaceKind];

const PARTICULARS: Record<Manner['language'], readonly Asked[]> = {
  en: [
    ['Full name', 'name'],
    ['Date of birth', 'date'],
    ['Present address', 'text'],
    ['Since', 'date'],
    ['Employer', 'text'],
    ['Telephone', 'text'],
    ['Position', 'text'],
    ['Income per month', 'text'],
    ['Years there', 'text'],
    ['Email', 'text'],
    ['Driver license', 'text'],
    ['Vehicle and plate', 'text'],
    ['Mailing address', 'text'],
    ['Social security no.', 'text'],
  ],
  es: [
    ['Nombre completo', 'name'],
    ['Fecha de nacimiento', 'date'],
    ['Domicilio', 'text'],
    ['Empleador', 'text'],
    ['Teléfono', 'text'],
    ['Ingreso mensual', 'text'],
    ['Correo', 'text'],
  ],
};

/** Returns a cell with its caption, above the room to write in or before it. */
function cell(m: Manner, [words, kind]: Asked, who: { role: Role; ordinal: number } | null, above: boolean): string {
  const at = blank(m.r, 'nothing', kind, who, m.r.int(60, 110));
  return `<td style="vertical-align:top;padding:2pt 4pt ${above ? 8 : 3}pt">${above ? `<small>${words}</small><br>${at}` : `${words}: ${at}`}</td>`;
}

/** Returns one card for each person of a role. The heading names the person; every cell under it belongs to that person. */
export function personCards(m: Manner, role: Role): string {
  const { r } = m;
  const people = peopleOf(m, [role]).slice(0, 3);
  const asked = r.shuffled(PARTICULARS[m.language]).slice(0, r.int(3, 8));
  const across = r.int(1, 3);
  const above = r.is(0.7);
  const upper = r.is(0.3);
  const band = r.of([
    'font-weight:bold',
    'background:#e6e6e6;font-weight:bold',
    'background:#333;color:#fff',
    'font-style:italic',
  ]);
  return people
    .map((who) => {
      const name = nameOf(m, who, m.people[role] ?? 1);
      const heading = r.is(0.5)
        ? name.toUpperCase()
        : `${m.language === 'en' ? r.of(['About ', 'Information on ', '']) : ''}${name}`;
      const rows: string[] = [];
      for (let i = 0; i < asked.length; i += across)
        rows.push(
          `<tr>${asked
            .slice(i, i + across)
            .map(([w, kind]) => cell(m, [upper ? w.toUpperCase() : w, kind], who, above))
            .join('')}</tr>`,
        );
      return r.is(0.5)
        ? `<p style="margin:8pt 0 1pt;${band}">${heading}</p><table style="margin:0 0 4pt;width:100%">${rows.join('')}</table>`
        : `<table style="margin:6pt 0;width:100%"><tr><td colspan="${across}" style="${band}">${heading}</td></tr>${rows.join('')}</table>`;
    })
    .join('');
}

/** Returns the facts at the head of a form, in cells or on lines: of things and days, with the names of people among them. */
export function headFacts(m: Manner, sides: readonly Role[]): string {
  const { r } = m;
  const en: readonly Asked[] = [
    ['Property', 'text'],
    ['Street', 'text'],
    ['Town, county', 'text'],
    ['Unit', 'text'],
    ['Tax lot', 'text'],
    ['Date of agreement', 'date'],
    ['Lease dated', 'date'],
    ['Closing', 'date'],
    ['Closing on', 'date'],
    ['Listing begins', 'date'],
    ['Listing ends', 'date'],
    ['Date received', 'date'],
    ['Keys given on', 'date'],
    ['Effective date', 'date'],
    ['Price', 'text'],
    ['Legal description', 'text'],
    ['Addendum no.', 'text'],
    ['File no.', 'text'],
    ['Escrow no.', 'text'],
    ['Year built', 'text'],
    ['Date of offer', 'date'],
  ];
  const es: readonly Asked[] = [
    ['Inmueble', 'text'],
    ['Unidad', 'text'],
    ['Fecha del contrato', 'date'],
    ['Cierre', 'date'],
    ['Precio', 'text'],
    ['Condado', 'text'],
  ];
  const things = r.shuffled(m.language === 'en' ? en : es).slice(0, r.int(2, 6));
  const people = r.is(0.6) ? r.shuffled(peopleOf(m, sides)).slice(0, r.int(1, 2)) : [];
  const upper = r.is(0.35);
  const all = r.shuffled<{ words: string; kind: PlaceKind; who: { role: Role; ordinal: number } | null }>([
    ...things.map(([words, kind]) => ({ words, kind, who: null })),
    ...people.map((who) => {
      const name = nameOf(m, who, m.people[who.role] ?? 1);
      const words = m.language === 'en' ? r.of([name, name, `Name of ${name.toLowerCase()}`]) : name;
      return { words, kind: 'name' as const, who };
    }),
  ]);
  const words = (w: string) => (upper ? w.toUpperCase() : w);
  if (r.is(0.5)) {
    const across = r.int(2, 4);
    const above = r.is(0.7);
    const rows: string[] = [];
    if (r.is(0.5))
      return grid(
        m,
        all.map((x) => ({ ...x, words: words(x.words) })),
      );
    for (let i = 0; i < all.length; i += across)
      rows.push(
        `<tr>${all
          .slice(i, i + across)
          .map((x) => cell(m, [words(x.words), x.kind], x.who, above))
          .join('')}</tr>`,
      );
    return `<table style="margin:6pt 0;width:100%">${rows.join('')}</table>`;
  }
  const joint = r.of(['<br>', ' &nbsp; ', ' ']);
  return `<p>${all.map((x) => `<span style="white-space:nowrap">${words(x.words)}${r.is(0.8) ? ':' : ''} ${blank(r, m.lines, x.kind, x.who, r.int(60, 180))}</span>`).join(joint)}</p>`;
}

/** Returns captions over the room to write in, in rows whose columns differ from row to row: framed, or tinted without a frame. */
function grid(
  m: Manner,
  all: readonly { words: string; kind: PlaceKind; who: { role: Role; ordinal: number } | null }[],
): string {
  const { r } = m;
  const isFramed = r.is(0.6);
  const drawn = isFramed ? 'nothing' : r.of(['tint', 'frame', 'rule'] as const);
  const high = r.int(22, 32);
  const rows: string[] = [];
  for (let i = 0; i < all.length;) {
    const some = all.slice(i, i + r.int(1, 3));
    i += some.length;
    const share = Math.floor(100 / some.length);
    rows.push(
      `<div style="display:flex;${isFramed ? 'border:0.7pt solid #333;margin-top:-0.7pt' : 'margin-top:5pt'}">${some
        .map(
          (x, k) =>
            `<div style="width:${share}%;${isFramed ? `min-height:${high}pt;padding:1pt 3pt;${k ? 'border-left:0.7pt solid #333' : ''}` : ''}"><small>${x.words}</small><br>${blank(r, drawn, x.kind, x.who, 340 / some.length - 20)}</div>`,
        )
        .join('')}</div>`,
    );
  }
  return `<div style="margin:6pt 0">${rows.join('')}</div>`;
}

/** Returns a table of what one side asks for and the other answers, row by row, with initials at the end of each. */
export function answerTable(m: Manner, [asks, answersRole]: readonly [Role, Role]): string {
  const { r } = m;
  const [A, B] = [m.called[asks][0], m.called[answersRole][0]];
  const en = m.language === 'en';
  const first = en
    ? r.of([`Repair asked for by ${A}`, `What the ${A} asks`, 'Item and place', 'Work to be done', `${A}’s request`])
    : `Lo que pide el ${A}`;
  const yes = en ? r.of([`${B} agrees`, 'Agreed', 'Will do', 'Accepted']) : 'Acepta';
  const no = en ? r.of([`${B} refuses`, 'Refused', 'Will not', 'Declined']) : 'Rechaza';
  const who = { role: answersRole, ordinal: 1 };
  const initials = r.is(0.6);
  const credit = r.is(0.3);
  const width = r.int(120, 240);
  const heads = [
    ...(r.is(0.7) ? [en ? 'No.' : 'N.º'] : []),
    first,
    yes,
    no,
    ...(credit ? [en ? r.of(['Credit', 'Amount']) : 'Monto'] : []),
    ...(initials ? [en ? r.of([`${B}’s initials`, `${B} initials`]) : `Iniciales del ${B}`] : []),
  ];
  const numbered = heads.length === 3 + Number(initials) + Number(credit) + 1;
  const at = (kind: PlaceKind, w: number, of: typeof who | null = null, drawn: Drawn = 'nothing') =>
    `<td>${blank(r, drawn, kind, of, w)}</td>`;
  const rows = Array.from(
    { length: r.int(3, 10) },
    (_, i) =>
      `<tr>${numbered ? `<td>${i + 1}</td>` : ''}${at('text', width)}${at('checkbox', 18)}${at('checkbox', 18)}${credit ? at('text', 40) : ''}${initials ? at('initials', 30, who) : ''}</tr>`,
  );
  return `<table style="margin:6pt 0"><tr>${heads.map((h) => `<th>${h}</th>`).join('')}</tr>${rows.join('')}</table>`;
}

/** Returns a numbered table of items to write in, under heads that may name a side without asking it to sign. */
export function writtenTable(m: Manner, role: Role): string {
  const { r } = m;
  const en = m.language === 'en';
  const heads: readonly Asked[] = r
    .shuffled<Asked>(
      en
        ? [
            [`Said by the ${m.called[role][0]}`, 'text'],
            ['Description', 'text'],
            ['Where', 'text'],
            ['Given on', 'date'],
            ['Copies', 'text'],
            ['Pages', 'text'],
            ['Cost', 'text'],
            ['Done on', 'date'],
          ]
        : [
            ['Descripción', 'text'],
            ['Lugar', 'text'],
            ['Fecha', 'date'],
            ['Páginas', 'text'],
          ],
    )
    .slice(0, r.int(1, 3));
  const named = r.is(0.5);
  const items = en
    ? [
        'Statement of known conditions',
        'Hazard report',
        'Title summary',
        'Pest report',
        'Roof report',
        'Permit history',
        'By-laws',
        'House rules',
      ]
    : ['Informe', 'Reglamento', 'Escritura', 'Permisos'];
  // A column of counts is often as narrow as its head.
  const narrow = r.is(0.7) ? /^(?:Copies|Pages|Cost|Páginas)$/ : /^$/;
  const [count, wide] = [r.int(12, 30), r.is(0.5) ? 30 : 70];
  const rows = Array.from({ length: r.int(3, 10) }, (_, i) => {
    const at = ([words, kind]: Asked) =>
      `<td${narrow.test(words) ? ' style="width:1%"' : ''}>${blank(r, 'nothing', kind, null, narrow.test(words) ? count : wide)}</td>`;
    return `<tr><td>${named ? (items[i % items.length] ?? '') : i + 1}</td>${heads.map(at).join('')}</tr>`;
  });
  return `<table style="margin:6pt 0;width:${r.of(['auto', '100%'])}"><tr><th>${named ? (en ? 'Paper' : 'Documento') : en ? 'No.' : 'N.º'}</th>${heads.map(([h]) => `<th>${h}</th>`).join('')}</tr>${rows.join('')}</table>`;
}

/** Returns a notary's certificate, or the lines of witnesses: nobody of the form signs there. */
export function certificate(m: Manner, role: Role): string {
  const { r } = m;
  const drawn: Drawn = m.lines === 'frame' || m.lines === 'tint' ? 'rule' : m.lines;
  const at = (kind: PlaceKind, w: number) => blank(r, drawn, kind, null, w);
  if (m.language === 'es')
    return `<p style="margin:14pt 0 2pt">Testigo: ${at('signature', 150)} Nombre: ${at('name', 120)}</p>`;
  if (r.is(0.25))
    return `<p style="margin:14pt 0 2pt">${r.of(['Escrow officer', 'Closing agent', 'Title officer', 'Interpreter', 'Received by the office'])}: ${at('signature', 160)} ${r.is(0.6) ? `Date: ${at('date', 80)}` : ''}</p>`;
  if (r.is(0.5))
    return `<p style="margin:14pt 0 2pt"><b>${r.of(['WITNESSES', 'Witnesses', 'Signed in the presence of'])}</b></p>${[
      1, 2,
    ]
      .map(
        (n) =>
          `<p>${r.is(0.7) ? `${n}. ` : ''}${at('signature', 170)} ${r.is(0.7) ? `Name ${at('name', 150)}` : ''}</p>`,
      )
      .join('')}`;
  return `<p style="margin:14pt 0 2pt">State of ${at('text', 90)} County of ${at('text', 90)}</p><p>${r.of(['This record was acknowledged before me on', 'Signed and sworn before me on'])} ${at('date', 90)} by ${blank(r, drawn, 'name', { role, ordinal: 1 }, 150)}.</p><p>${r.of(['Notary public', 'Signature of notary'])}: ${at('signature', 170)} ${r.is(0.7) ? `${r.of(['My commission ends', 'Commission expires'])}: ${at('date', 90)}` : ''}</p>`;
}
