/** Blocks in which people sign: layouts with captions on each side of the blank, or none, in lines, columns and tables. */
import type { PlaceKind } from '@gatepath/core/reading';
import { blank, type Whose } from './blanks';
import { BLOCKS, furtherBlock, type Block } from './blocks';
import { nameOf, peopleOf, type Manner } from './manner';
import type { Random } from './random';
import { BESIDE, FIRMS, KIND_WORDS, PEOPLE, type Role } from './wording';

/** Layouts of signature blocks, by name: one at a time is left out of training to measure on it. */
export const SIGNING = [
  'caption-left',
  'caption-below',
  'caption-above',
  'caption-right',
  'stack-left',
  'stack-below',
  'columns',
  'table-of-people',
  'table-of-kinds',
  'company',
  'captions-alone',
  'cells',
  'name-under-line',
  'one-line',
  'side-by-side',
  'cross-lines',
  'numbered',
  'given-by',
  ...BLOCKS,
] as const;
export type Signing = (typeof SIGNING)[number];

const isBlock = (layout: Signing): layout is Block => (BLOCKS as readonly Signing[]).includes(layout);

const BLOCK_KINDS = ['signature', 'name', 'date', 'text'] as const;

const kindWord = (m: Manner, kind: 'signature' | 'initials' | 'date' | 'name') => {
  const word = m.r.of(KIND_WORDS[m.language][kind]);
  return m.capitals && m.r.is(0.5) ? word.toUpperCase() : word;
};

const WIDTHS: Record<PlaceKind, readonly [number, number]> = {
  signature: [130, 250],
  name: [110, 220],
  date: [55, 110],
  text: [80, 190],
  initials: [24, 52],
  checkbox: [9, 9],
};

/** Returns what a person fills in one block: a signature, and a random choice of the others. */
function partsOf(m: Manner): (typeof BLOCK_KINDS)[number][] {
  const { r } = m;
  const parts: (typeof BLOCK_KINDS)[number][] = ['signature'];
  if (r.is(0.82)) parts.push('date');
  if (r.is(0.4)) parts.splice(r.int(0, parts.length), 0, 'name');
  if (r.is(0.25)) parts.splice(r.int(0, parts.length), 0, 'text');
  if (r.is(0.06)) parts.reverse();
  return parts;
}

/** Returns the space over a caption that stands over its line, in points: a caption is nearer to its own line than to the one before. */
const apartOf = (r: Random): number => (r.is(0.85) ? r.int(10, 18) : r.int(18, 26));

/** Ends the page between two people of a block: their heading, or the heads of their table, stay on the page before. */
const PAGE_END = '<div style="break-before:page"></div>';

const piece = (caption: string, line: string, style = '') =>
  `<span style="display:inline-block;vertical-align:top;margin:0 ${style || '10pt'} 5pt 0">${caption}${line}</span>`;

/** Returns the HTML of a signature block for people of some roles, with its headings. */
export function signingBlock(m: Manner, layout: Signing, roles: readonly Role[]): string {
  const { r } = m;
  if (isBlock(layout)) return furtherBlock(m, layout, roles);
  const parts = partsOf(m);
  const beside = r.of(BESIDE[m.language]);
  const rowGap = `margin:${r.int(6, 22)}pt 0 0`;
  const widths = Object.fromEntries(BLOCK_KINDS.map((k) => [k, r.int(...WIDTHS[k])])) as Record<string, number>;
  const line = (kind: (typeof BLOCK_KINDS)[number], who: Whose, width = widths[kind]!) =>
    blank(r, m.lines, kind, who, width);
  // What a caption says: the kind, the role, or both.
  const says = r.weighted([
    ['role', 4],
    ['kind', 3],
    ['both', 2],
    ['possessive', 2],
  ] as const);
  const words: Record<string, string> = Object.fromEntries(
    BLOCK_KINDS.map((k) => [k, k === 'text' ? beside : kindWord(m, k)]),
  );
  const several = (who: Whose) => m.people[who.role] ?? 1;
  const captionOf = (kind: (typeof BLOCK_KINDS)[number], who: Whose, headed: boolean): string => {
    if (kind !== 'signature') return words[kind]!;
    const name = nameOf(m, who, several(who));
    if (headed && says === 'kind') return words[kind]!;
    if (says === 'possessive' && m.language === 'en') return `${name}’s ${words[kind]!.toLowerCase()}`;
    return says === 'both' ? `${words[kind]!} ${m.language === 'en' ? 'of' : 'del'} ${name}` : name;
  };
  const headed = says === 'kind' || r.is(0.35);
  const heading = (role: Role) => {
    const [one, many] = m.called[role];
    const name = (several({ role, ordinal: 1 }) > 1 ? many : one).toUpperCase();
    return r.weighted([
      [`<p style="margin:10pt 0 2pt"><b>${name}${m.colon ? ':' : ''}</b></p>`, 4],
      [`<p style="margin:10pt 0 2pt">${name}</p>`, 2],
      [
        m.language === 'en'
          ? `<p style="margin:10pt 0 2pt">Agreed by the ${many.toLowerCase()}:</p>`
          : `<p style="margin:10pt 0 2pt">Aceptado por ${name}:</p>`,
        1,
      ],
      [
        m.language === 'en'
          ? `<p style="margin:10pt 0 2pt"><b>${r.of([`Signatures of the ${one}`, `To be signed by the ${many.toLowerCase()}`, `${one}’s acknowledgment`, `Acceptance by ${one}`, `${one} signs here`])}</b></p>`
          : `<p style="margin:10pt 0 2pt"><b>Firmas de ${name}</b></p>`,
        2,
      ],
    ] as const);
  };
  const colon = m.colon ? ':' : '';
  // The person before whom a page ends, if any.
  const people = peopleOf(m, roles);
  const overleaf = people.length > 1 && r.is(0.09) ? r.int(1, people.length - 1) : -1;
  const isOverleaf = (who: Whose) =>
    people.findIndex((p) => p.role === who.role && p.ordinal === who.ordinal) === overleaf;
  const group = (draw: (who: Whose, headed: boolean) => string, isHeaded = headed) =>
    roles
      .map(
        (role) =>
          (isHeaded ? heading(role) : '') +
          peopleOf(m, [role])
            .map((who) => (isOverleaf(who) ? PAGE_END : '') + draw(who, isHeaded))
            .join(''),
      )
      .join('');

  switch (layout) {
    case 'caption-left':
    case 'one-line': {
      const tight = layout === 'one-line';
      return group((who, h) => {
        const row = parts
          .map((k) =>
            piece(
              `${captionOf(k, who, h)}${colon} `,
              line(k, who, tight ? widths[k]! * 0.62 : widths[k]),
              tight ? '4pt' : '',
            ),
          )
          .join('');
        return `<div style="${rowGap}">${row}</div>`;
      });
    }
    case 'caption-below':
      return group(
        (who, h) =>
          `<div style="${rowGap}">${parts.map((k) => piece('', `${line(k, who)}<br><small>${captionOf(k, who, h)}</small>`, '16pt')).join('')}</div>`,
      );
    case 'caption-above':
      return group(
        (who, h) =>
          `<div style="margin:${r.int(12, 24)}pt 0 0">${parts.map((k) => piece(`<small>${captionOf(k, who, h)}${colon}</small><br>`, line(k, who), '16pt')).join('')}</div>`,
      );
    case 'caption-right':
      return group(
        (who, h) =>
          `<div style="${rowGap}">${parts.map((k) => piece('', `${line(k, who)} ${captionOf(k, who, h)}`, '14pt')).join('')}</div>`,
      );
    case 'stack-left':
      return group(
        (who, h) =>
          `<div style="${rowGap}">${parts.map((k) => `<p>${captionOf(k, who, h)}: ${line(k, who)}</p>`).join('')}</div>`,
      );
    case 'stack-below': {
      const above = r.is(0.4);
      const apart = apartOf(r);
      const one = (k: (typeof BLOCK_KINDS)[number], who: Whose, h: boolean) =>
        above
          ? `<div style="margin:${apart}pt 0 0"><small>${captionOf(k, who, h)}</small><br>${line(k, who)}</div>`
          : `<div style="margin:9pt 0 0">${line(k, who)}<br><small>${captionOf(k, who, h)}</small></div>`;
      return group((who, h) => `<div style="${rowGap}">${parts.map((k) => one(k, who, h)).join('')}</div>`);
    }
    case 'columns': {
      const side = r.weighted([
        ['below', 4],
        ['left', 3],
        ['above', 2],
      ] as const);
      const apart = apartOf(r);
      const w = { signature: r.int(120, 190), name: r.int(110, 170), date: r.int(50, 90), text: r.int(80, 120) };
      const one = (k: (typeof BLOCK_KINDS)[number], who: Whose, h: boolean) => {
        const caption = captionOf(k, who, h);
        const at = line(k, who, w[k]);
        if (side === 'left') return `<p style="margin:9pt 0 0">${caption}: ${at}</p>`;
        return side === 'below'
          ? `<div style="margin:12pt 0 0">${at}<br><small>${caption}</small></div>`
          : `<div style="margin:${apart}pt 0 0"><small>${caption}</small><br>${at}</div>`;
      };
      const column = (role: Role) =>
        `<div style="width:48%;display:inline-block;vertical-align:top">${heading(role)}${peopleOf(m, [role])
          .map((who) => `<div style="margin:8pt 0 0">${parts.map((k) => one(k, who, true)).join('')}</div>`)
          .join('')}</div>`;
      return roles.map(column).join(r.is(0.5) ? ' &nbsp; ' : '');
    }
    case 'table-of-people': {
      const head = ['', ...parts.map((k) => words[k]!)];
      const rows = people.map(
        (who) =>
          `<tr${isOverleaf(who) ? ' style="break-before:page"' : ''}><td>${nameOf(m, who, several(who))}</td>${parts.map((k) => `<td>${blank(r, 'nothing', k, who, Math.min(widths[k]!, 150))}</td>`).join('')}</tr>`,
      );
      return `<table style="margin:10pt 0"><tr>${head.map((h) => `<th>${h}</th>`).join('')}</tr>${rows.join('')}</table>`;
    }
    case 'table-of-kinds': {
      const some = people.slice(0, 4);
      const head = ['', ...some.map((who) => nameOf(m, who, several(who)))];
      const w = Math.min(120, 380 / some.length);
      const rows = parts.map(
        (k) =>
          `<tr><td>${words[k]!}</td>${some.map((who) => `<td>${blank(r, 'nothing', k, who, w)}</td>`).join('')}</tr>`,
      );
      return `<table style="margin:10pt 0"><tr>${head.map((h) => `<th>${h}</th>`).join('')}</tr>${rows.join('')}</table>`;
    }
    case 'company':
      return roles
        .map((role) => {
          const who = { role, ordinal: 1 };
          const rows: [string, (typeof BLOCK_KINDS)[number]][] = [
            [m.language === 'en' ? 'By' : 'Por', 'signature'],
            [m.language === 'en' ? 'Name' : 'Nombre', 'name'],
            [r.of(m.language === 'en' ? ['Its', 'Title'] : ['Cargo']), 'text'],
            [m.language === 'en' ? 'Date' : 'Fecha', 'date'],
          ];
          const kept = rows.filter(([, k]) => k === 'signature' || r.is(0.75));
          return `<div style="margin:12pt 0 0;width:${r.is(0.5) ? 46 : 90}%;display:inline-block;vertical-align:top"><p><b>${m.called[role][0].toUpperCase()}:</b> ${r.of(FIRMS)}</p>${kept.map(([c, k]) => `<p style="margin:8pt 0 0">${c}: ${line(k, who, 150)}</p>`).join('')}</div>`;
        })
        .join(' ');
    case 'captions-alone':
      return group((who) => {
        const rows = r.is(0.5) ? (['signature', 'name', 'date'] as const) : parts.filter((k) => k !== 'text');
        return `<div style="margin:8pt 0 0">${rows.map((k) => `<p style="margin:${r.int(6, 14)}pt 0 0">${k === 'signature' ? (m.language === 'en' ? r.of(['By', 'Signature', 'Signed']) : 'Firma') : words[k]!}: ${blank(r, 'nothing', k, who, k === 'date' ? 90 : 180)}</p>`).join('')}</div>`;
      }, true);
    case 'cells': {
      const rows = people.map(
        (who) =>
          `<tr>${parts.map((k) => `<td style="vertical-align:top;height:30pt;padding:2pt 4pt"><small style="font-size:7.5pt">${captionOf(k, who, false)}${colon}</small><br>${blank(r, 'nothing', k, who, Math.min(widths[k]!, 160))}</td>`).join('')}</tr>`,
      );
      return `<table style="margin:10pt 0">${rows.join('')}</table>`;
    }
    case 'side-by-side': {
      // In each row the next person of the first role signs on the left, and the next person of the second role on the right.
      const sides = roles.slice(0, 2).map((role) => peopleOf(m, [role]));
      const rows = Math.max(...sides.map((p) => p.length));
      const narrow = { signature: r.int(110, 150), name: 90, date: r.int(45, 66), text: 60 };
      const some = parts.filter((k) => k === 'signature' || k === 'date');
      const below = r.is(0.5);
      const one = (k: 'signature' | 'date', who: Whose) => {
        const caption = captionOf(k, who, headed);
        return below
          ? piece('', `${line(k, who, narrow[k])}<br><small>${caption}</small>`, '6pt')
          : piece(`<small>${caption}${colon} </small>`, line(k, who, narrow[k] * 0.7), '4pt');
      };
      const half = (who: Whose | undefined) =>
        `<div style="width:49%;display:inline-block;vertical-align:top">${who ? some.map((k) => one(k as 'signature' | 'date', who)).join('') : ''}</div>`;
      const heads = headed
        ? `<div>${roles
            .slice(0, 2)
            .map((role) => `<div style="width:49%;display:inline-block">${heading(role)}</div>`)
            .join('')}</div>`
        : '';
      const cut = rows > 1 && r.is(0.2) ? r.int(1, rows - 1) : -1;
      return `${heads}${Array.from({ length: rows }, (_, i) => `${i === cut ? PAGE_END : ''}<div style="${rowGap}">${sides.map((p) => half(p[i])).join('')}</div>`).join('')}`;
    }
    case 'cross-lines':
      // Each line begins with an X; the role is named under it, or only by the heading over the lines.
      if (r.is(0.35))
        return group((who) => {
          const dated = parts.includes('date') ? ` ${words['date']!}${colon} ${line('date', who, 70)}` : '';
          return `<div style="margin:${r.int(10, 24)}pt 0 0">${r.of(['X', 'x'])}${r.of(['', ' '])}${line('signature', who)}${dated}<br>${r.of(['', '&nbsp; '])}<small>${nameOf(m, who, several(who))}</small></div>`;
        });
      return group(
        (who) =>
          `<div style="${rowGap}">${r.of(['X', 'x', '\u2717'])} ${line('signature', who)} ${parts.includes('date') ? `${words['date']!}${colon} ${line('date', who, 70)}` : ''}</div>`,
        true,
      );
    case 'numbered':
      return group(
        (who) =>
          `<div style="${rowGap}">${who.ordinal}${r.of(['.', ')'])} ${parts.map((k) => (k === 'signature' ? line(k, who) : `${words[k]!}${colon} ${line(k, who, widths[k]! * 0.6)}`)).join(' ')}</div>`,
        true,
      );
    case 'given-by': {
      const verbs =
        m.language === 'en'
          ? ['Received by', 'Given by', 'Accepted by', 'Approved by', 'Agreed by']
          : ['Recibido por', 'Entregado por'];
      const under = r.is(0.4);
      return group((who) => {
        const caption = `${r.of(verbs)} ${nameOf(m, who, several(who))}`;
        if (under) {
          const some = parts.filter((k) => k !== 'text');
          const at = some.map((k) =>
            piece('', `${line(k, who, k === 'signature' ? 140 : 80)}<br><small>${words[k]!}</small>`, '14pt'),
          );
          return `<div style="${rowGap}"><span style="display:inline-block;vertical-align:top;width:${r.int(100, 130)}pt">${caption}${colon}</span>${at.join('')}</div>`;
        }
        const dated = parts.includes('date') ? `${words['date']!}${colon} ${line('date', who, 80)}` : '';
        return `<div style="${rowGap}">${caption}${colon} ${line('signature', who, 150)} ${dated}</div>`;
      });
    }
    case 'name-under-line':
      return group((who) => {
        const person = r.of(PEOPLE);
        const dated = parts.includes('date');
        return `<div style="${rowGap}">${piece('', `${line('signature', who)}<br>${person}${r.is(0.6) ? `, ${nameOf(m, who, several(who))}` : ''}`, '18pt')}${dated ? piece('', `${line('date', who)}<br>${words['date']!}`) : ''}</div>`;
      }).replace(/^/, headed ? '' : heading(roles[0]!));
  }
}

/** Returns a block in which the same people sign twice, side by side: when they move in, and when they move out. */
export function phases(m: Manner, role: Role): string {
  const { r } = m;
  const people = peopleOf(m, [role]);
  const heads =
    m.language === 'en'
      ? r.of([
          ['At move-in', 'At move-out'],
          ['Before', 'After'],
          ['First visit', 'Second visit'],
        ])
      : ['Al entrar', 'Al salir'];
  const dated = r.is(0.7);
  const date = m.r.of(KIND_WORDS[m.language].date);
  const width = r.int(110, 150);
  const one = (who: Whose) => {
    const under = (kind: 'signature' | 'date', w: number, caption: string) =>
      piece('', `${blank(r, m.lines, kind, who, w)}<br><small>${caption}</small>`, '8pt');
    return `<div style="margin:10pt 0 0">${under('signature', width, nameOf(m, who, people.length))}${dated ? under('date', r.int(45, 70), date) : ''}</div>`;
  };
  return heads
    .map(
      (h) =>
        `<div style="width:49%;display:inline-block;vertical-align:top"><p style="margin:10pt 0 2pt"><b>${h}</b></p>${people.map(one).join('')}</div>`,
    )
    .join('');
}
