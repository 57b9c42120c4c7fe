/** Further blocks in which people sign: tables with a column for each side, lines in cells, lines under heads, people side by side. */
import type { PlaceKind } from '@gatepath/core/reading';
import { blank, type Whose } from './blanks';
import { nameOf, peopleOf, type Manner } from './manner';
import { BESIDE, FIRMS, KIND_WORDS, type Role } from './wording';

/** Layouts of these blocks, by name. */
export const BLOCKS = [
  'side-table',
  'lines-in-cells',
  'bare-stack',
  'headed-lines',
  'across',
  'unlike-columns',
] as const;
export type Block = (typeof BLOCKS)[number];

type Part = Exclude<PlaceKind, 'initials' | 'checkbox'>;
/** A caption and the kind of place it asks for. */
type Asked = readonly [string, Part];

const many = (m: Manner, who: Whose) => m.people[who.role] ?? 1;
const called = (m: Manner, who: Whose) => nameOf(m, who, many(m, who));

/** Returns what each person fills in, with its captions: a signature, mostly a day, sometimes a name and something else. */
function askedOf(m: Manner, { name, other }: { name: number; other: number }): Asked[] {
  const { r, language } = m;
  const words = KIND_WORDS[language];
  const asked: Asked[] = [[r.of(words.signature), 'signature']];
  if (r.is(0.85)) asked.push([r.of(words.date), 'date']);
  if (r.is(name)) asked.splice(r.int(0, asked.length), 0, [r.of(words.name), 'name']);
  if (r.is(other)) asked.splice(r.int(0, asked.length), 0, [r.of(BESIDE[language]), 'text']);
  return asked;
}

/** Returns a table with a column for each person: the head names the person, and each cell has its own caption. */
function sideTable(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const people = roles.flatMap((role) => peopleOf(m, [role]).slice(0, 2)).slice(0, 3);
  const asked = askedOf(m, { name: 0.7, other: 0.7 });
  if (r.is(0.3)) asked.unshift([m.language === 'en' ? r.of(['Firm', 'Address', 'License no.']) : 'Domicilio', 'text']);
  const over = r.is(0.3);
  const cell = ([words, kind]: Asked, who: Whose) => {
    const at = blank(r, 'nothing', kind, who, Math.min(110, 300 / people.length));
    return over
      ? `<td style="vertical-align:top;padding:2pt 4pt 9pt"><small>${words}</small><br>${at}</td>`
      : `<td>${words}${m.colon || r.is(0.7) ? ':' : ''} ${at}</td>`;
  };
  const head = r.is(0.85)
    ? `<tr>${people.map((who) => `<th>${r.is(0.5) ? called(m, who).toUpperCase() : called(m, who)}</th>`).join('')}</tr>`
    : `<tr>${people.map((who) => `<td><b>${called(m, who)}</b></td>`).join('')}</tr>`;
  return `<table style="margin:10pt 0">${head}${asked.map((a) => `<tr>${people.map((who) => cell(a, who)).join('')}</tr>`).join('')}</table>`;
}

/** Returns a table with a column for each side and a cell for each person, in which each line stands under its caption. */
function linesInCells(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const sides = roles.slice(0, 2).map((role) => peopleOf(m, [role]));
  const asked = askedOf(m, { name: 0.6, other: 0.1 });
  const apart = r.int(9, 16);
  // In some forms the border under the cell serves as its last line.
  const isLastOpen = r.is(0.5);
  const here = m.language === 'en' ? r.of([' sign here', ' signs here', ' signature', '']) : ' firma aquí';
  const one = (who: Whose) =>
    asked
      .map(([words, kind], i) => {
        const caption = kind === 'signature' ? `${called(m, who)}${here}` : words;
        const isLast = i === asked.length - 1;
        const line = isLast && isLastOpen ? 'nothing' : m.lines === 'tint' || m.lines === 'frame' ? 'rule' : m.lines;
        return `<div style="margin:${i ? apart : 0}pt 0 0"><small>${caption}</small><br>${blank(r, line, kind, who, 170)}</div>`;
      })
      .join('');
  const rows = Math.max(...sides.map((p) => p.length));
  const heads = r.is(0.7)
    ? `<tr>${roles
        .slice(0, 2)
        .map((role) => `<th>${m.called[role][0].toUpperCase()}</th>`)
        .join('')}</tr>`
    : '';
  return `<table style="margin:10pt 0">${heads}${Array.from(
    { length: rows },
    (_, i) =>
      `<tr>${sides.map((p) => `<td style="vertical-align:top;padding:2pt 4pt ${isLastOpen ? 3 : 8}pt">${p[i] ? one(p[i]) : ''}</td>`).join('')}</tr>`,
  ).join('')}</table>`;
}

/** Returns, under a heading for each side, a line without any caption to sign on, and captioned lines under it. */
function bareStack(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const rest = askedOf(m, { name: 0.75, other: 0.25 }).filter(([, kind]) => kind !== 'signature');
  const beside = roles.length > 1 && r.is(0.6);
  const apart = r.int(14, 28);
  const one = (who: Whose) =>
    `<div style="margin:${apart}pt 0 0">${blank(r, m.lines, 'signature', who, r.of([150, 170, 190]))}${rest
      .map(
        ([words, kind]) =>
          `<p style="margin:6pt 0 0">${words}${m.colon || r.is(0.5) ? ':' : ''} ${blank(r, m.lines, kind, who, kind === 'date' ? 80 : 130)}</p>`,
      )
      .join('')}</div>`;
  return roles
    .map(
      (role) =>
        `<div style="${beside ? 'width:49%;display:inline-block;vertical-align:top' : ''}"><p style="margin:8pt 0 0"><b>${m.called[role][r.is(0.4) ? 1 : 0].toUpperCase()}</b></p>${peopleOf(m, [role]).map(one).join('')}</div>`,
    )
    .join('');
}

/** Returns lines in columns, with what they ask for at the head and the people at the left, without a frame. */
function headedLines(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const asked = askedOf(m, { name: 0.7, other: 0.15 });
  const width = { signature: r.int(120, 170), name: r.int(90, 130), date: r.int(50, 70), text: r.int(60, 90) };
  const first = r.int(70, 100);
  const drawn = r.is(0.7) ? 'rule' : m.lines;
  const column = (w: number, text: string) =>
    `<span style="display:inline-block;vertical-align:bottom;width:${w}pt;margin-right:6pt">${text}</span>`;
  const bold = (text: string) => (r.is(0.5) ? `<b>${text}</b>` : text);
  return `<div style="margin:10pt 0;white-space:nowrap"><div>${column(first, '')}${asked.map(([w, kind]) => column(width[kind], `<small>${w}</small>`)).join('')}</div>${peopleOf(
    m,
    roles,
  )
    .map(
      (who) =>
        `<div style="margin:${r.int(8, 14)}pt 0 0">${column(first, bold(called(m, who)))}${asked.map(([, kind]) => column(width[kind], blank(r, drawn, kind, who, width[kind] - 4))).join('')}</div>`,
    )
    .join('')}</div>`;
}

/** Returns the people of each side next to each other on one row, each line with its caption under it. */
function across(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const words = KIND_WORDS[m.language];
  const day = r.is(0.6) ? r.of(words.date) : null;
  const isMixed = r.is(0.3);
  const rows = (isMixed ? [peopleOf(m, roles)] : roles.map((role) => peopleOf(m, [role]))).flatMap((people) => {
    const size = r.int(2, 3);
    return Array.from({ length: Math.ceil(people.length / size) }, (_, i) => people.slice(i * size, i * size + size));
  });
  const line = (kind: Part, who: Whose, w: number, caption: string) =>
    `<span style="display:inline-block;vertical-align:top;width:${w}%;text-align:${r.of(['left', 'left', 'center'])}">${blank(r, m.lines, kind, who, kind === 'date' ? 90 : 130)}<br><small>${caption}</small></span>`;
  return rows
    .map((people) => {
      const w = Math.floor(96 / Math.max(2, people.length));
      const row = (kind: Part, caption: (who: Whose) => string) =>
        `<div style="margin:${r.int(12, 20)}pt 0 0">${people.map((who) => line(kind, who, w, caption(who))).join('')}</div>`;
      return row('signature', (who) => called(m, who)) + (day ? row('date', () => day) : '');
    })
    .join('');
}

/** Returns two columns with different lines in them: on the left each person signs, on the right an officer signs for a firm. */
function unlikeColumns(m: Manner, roles: readonly Role[]): string {
  const { r } = m;
  const [people, firm] = [roles[0]!, roles[1] ?? roles[0]!];
  const en = m.language === 'en';
  const date = r.of(KIND_WORDS[m.language].date);
  const line = (kind: Part, who: Whose, w: number) => blank(r, m.lines, kind, who, w);
  const p = (text: string) => `<p style="margin:9pt 0 0">${text}</p>`;
  const isCrossed = r.is(0.5);
  const left = peopleOf(m, [people])
    .map(
      (who) =>
        p(`${isCrossed ? 'X' : `${called(m, who)}:`} ${line('signature', who, 120)}`) +
        p(`${date}: ${line('date', who, 70)}`),
    )
    .join('');
  const who = { role: firm, ordinal: 1 };
  const officer: Asked[] = [
    [en ? 'By' : 'Por', 'signature'],
    [en ? 'Name' : 'Nombre', 'name'],
    [en ? r.of(['Title', 'Its', 'License number']) : 'Cargo', 'text'],
    [date, 'date'],
  ];
  const right = officer
    .filter(([, kind]) => kind === 'signature' || r.is(0.8))
    .map(([w, kind]) => p(`${w}: ${line(kind, who, 110)}`));
  const head = (role: Role, after = '') =>
    `<p style="margin:8pt 0 0"><b>${m.called[role][0].toUpperCase()}</b>${after}</p>`;
  const half = (html: string) => `<div style="width:49%;display:inline-block;vertical-align:top">${html}</div>`;
  return roles.length < 2
    ? half(head(people) + left)
    : half(head(people) + left) + half(head(firm, r.is(0.4) ? `: ${r.of(FIRMS)}` : '') + right.join(''));
}

const DRAW: Record<Block, (m: Manner, roles: readonly Role[]) => string> = {
  'side-table': sideTable,
  'lines-in-cells': linesInCells,
  'bare-stack': bareStack,
  'headed-lines': headedLines,
  across,
  'unlike-columns': unlikeColumns,
};

/** Returns the HTML of a block for people of some roles. */
export const furtherBlock = (m: Manner, layout: Block, roles: readonly Role[]): string => DRAW[layout](m, roles);
