/** Initials of generated forms: at the foot of every page, beside clauses, in tables. */
import { blank } from './blanks';
import { nameOf, peopleOf, type Manner } from './manner';
import { KIND_WORDS, type Role } from './wording';

/** Layouts of initials at the foot, by name. */
export const FEET = [
  'row-left',
  'row-possessive',
  'row-right',
  'boxes-below',
  'boxes-above',
  'cells',
  'each-named',
  'brackets-right',
  'each-behind',
  'cells-captioned',
  'codes',
  'one-line-parted',
  'joint-named',
  'none',
] as const;
export type Foot = (typeof FEET)[number];

/** Returns the initials at the foot of a page, for the people of some roles. */
export function footOf(m: Manner, foot: Foot, roles: readonly Role[], width: number): string {
  const { r } = m;
  const word = r.of(KIND_WORDS[m.language].initials);
  const b = (role: Role, ordinal: number) => blank(r, m.short, 'initials', { role, ordinal }, width);
  const of = (role: Role) => peopleOf(m, [role]);
  const joint = r.of([' ', ' ', ' / ', ' &nbsp; ']);
  const gap = r.of(['&nbsp;&nbsp;&nbsp;', '&nbsp;&nbsp;&nbsp;&nbsp;&nbsp;&nbsp;&nbsp;', ' &nbsp; ']);
  const several = (role: Role) => m.people[role] ?? 1;
  const named = (role: Role) => (several(role) > 1 && r.is(0.4) ? m.called[role][1] : m.called[role][0]);
  switch (foot) {
    case 'none':
      return '';
    case 'row-left':
      return `${r.is(0.8) ? `${word}: ` : ''}${roles
        .map(
          (role) =>
            `${named(role)}${r.of(['', ':'])} ${of(role)
              .map((w) => b(role, w.ordinal))
              .join(joint)}`,
        )
        .join(gap)}`;
    case 'row-possessive':
      return roles
        .map(
          (role) =>
            `${m.language === 'en' ? `${named(role)}${named(role).endsWith('s') ? '’' : '’s'} ${word.toLowerCase()}` : `${word} del ${named(role)}`}${r.of(['', ':'])} ${of(
              role,
            )
              .map((w) => b(role, w.ordinal))
              .join(joint)}`,
        )
        .join(gap);
    case 'row-right':
      return roles
        .map(
          (role) =>
            `${of(role)
              .map((w) => b(role, w.ordinal))
              .join(joint)} ${named(role)}${r.is(0.3) ? ` ${word.toLowerCase()}` : ''}`,
        )
        .join(gap);
    case 'brackets-right':
      return roles
        .map(
          (role) =>
            `( ${of(role)
              .map((w) => b(role, w.ordinal))
              .join(' / ')} ) ${named(role)}`,
        )
        .join(gap);
    case 'joint-named': {
      // One pair of brackets for all, and behind it who they are, in the same order.
      const people = roles.flatMap((role) => of(role).slice(0, 1));
      return `${r.is(0.7) ? `${word} ` : ''}(${people.map((w) => b(w.role, w.ordinal)).join(' / ')}) ${people.map((w) => m.called[w.role][0]).join(r.of([' / ', ' and ', ', ']))}`;
    }
    case 'each-named':
      return roles
        .flatMap((role) =>
          of(role).map((w) => `${nameOf(m, w, several(role))}${r.of(['', ':'])} ${b(role, w.ordinal)}`),
        )
        .join(gap);
    case 'each-behind':
      return `${r.is(0.7) ? `${word}: ` : ''}${roles
        .flatMap((role) => of(role).map((w) => `${b(role, w.ordinal)} ${nameOf(m, w, several(role))}`))
        .join(gap)}`;
    case 'cells-captioned':
      return `<table style="width:auto;font-size:8pt"><tr>${r.is(0.5) ? `<td style="padding:1pt 4pt">${word}</td>` : ''}${roles
        .flatMap((role) =>
          of(role).map(
            (w) =>
              `<td style="padding:1pt 3pt;vertical-align:top"><small style="font-size:6pt">${nameOf(m, w, several(role))}</small><br>${blank(r, 'nothing', 'initials', w, width)}</td>`,
          ),
        )
        .join('')}</tr></table>`;
    case 'one-line-parted': {
      // One line for all, with each name under its part of it.
      const people = roles.flatMap(of);
      const part = r.int(60, 96);
      const row = (draw: (w: (typeof people)[number]) => string, style: string) =>
        `<div style="${style}">${people.map((w) => `<span style="display:inline-block;width:${part}pt;text-align:center">${draw(w)}</span>`).join('')}</div>`;
      return `<span style="display:inline-block">${word}</span> <span style="display:inline-block;vertical-align:top">${row((w) => blank(r, 'nothing', 'initials', w, part - 6), 'border-bottom:0.7pt solid #222')}${row((w) => `<small>${nameOf(m, w, several(w.role))}</small>`, '')}</span>`;
    }
    case 'codes': {
      // Each blank has a code such as "B1": the first letter of the role, and the person's number. A legend explains the letters.
      const code = (w: { role: Role; ordinal: number }) =>
        `${m.called[w.role][0].slice(0, 1).toUpperCase()}${several(w.role) > 1 || r.is(0.5) ? w.ordinal : ''}`;
      const legend = roles
        .map((role) => `${m.called[role][0].slice(0, 1).toUpperCase()} = ${m.called[role][0]}`)
        .join(', ');
      const at = (w: { role: Role; ordinal: number }) =>
        `<span style="display:inline-block;margin-right:9pt">${
          m.colon
            ? `${b(w.role, w.ordinal)}<br><small>${code(w)}</small>`
            : `<small>${code(w)}</small> ${b(w.role, w.ordinal)}`
        }</span>`;
      return `<small>${legend}.</small> ${roles.flatMap((role) => of(role).map(at)).join('')}`;
    }
    case 'boxes-below':
    case 'boxes-above':
      return roles
        .flatMap((role) =>
          of(role).map((w) => {
            const caption = `<small>${nameOf(m, w, several(role))}</small>`;
            const at = blank(r, m.short === 'brackets' ? 'frame' : m.short, 'initials', w, width);
            return `<span style="display:inline-block;margin-right:12pt;text-align:${r.of(['left', 'left', 'center'])}">${foot === 'boxes-below' ? `${at}<br>${caption}` : `${caption}<br>${at}`}</span>`;
          }),
        )
        .join('');
    case 'cells':
      return `<table style="width:auto;font-size:8pt"><tr>${roles
        .flatMap((role) =>
          of(role).map(
            (w) =>
              `<td style="padding:1pt 4pt">${nameOf(m, w, several(role))}</td><td style="padding:1pt 4pt">${blank(r, 'nothing', 'initials', w, width)}</td>`,
          ),
        )
        .join('')}</tr></table>`;
  }
}

/** Ways in which clauses are initialed, by name. */
export const CLAUSE_INITIALS = [
  'before',
  'after',
  'margin',
  'caption-after',
  'table',
  'table-of-both',
  'heads',
  'right-margin',
] as const;
export type ClauseInitials = (typeof CLAUSE_INITIALS)[number];

/** Returns clauses that people initial one by one. */
export function initialedClauses(
  m: Manner,
  way: ClauseInitials,
  role: Role,
  other: Role,
  clauses: readonly string[],
): string {
  const { r } = m;
  const word = r.of(KIND_WORDS[m.language].initials);
  const people = peopleOf(m, [role]);
  const b = (w: (typeof people)[number], width = r.int(24, 44)) => blank(r, m.short, 'initials', w, width);
  const all = () => people.map((w) => b(w)).join(r.of([' ', '&nbsp;&nbsp;', ' / ']));
  const [one, many] = m.called[role];
  const asks =
    m.language === 'en'
      ? `${people.length > 1 ? many : one} must initial each line:`
      : `${one} debe poner sus iniciales en cada línea:`;
  switch (way) {
    case 'before':
      return `<p>${asks}</p>${clauses.map((c) => `<p>${all()} ${c}</p>`).join('')}`;
    case 'after':
      return `<p>${asks}</p>${clauses.map((c, i) => `<p>${i + 1}. ${c} ${all()}</p>`).join('')}`;
    case 'margin':
      return `<p>${asks}</p>${clauses.map((c) => `<div style="display:flex"><div style="flex:none;width:${people.length * 50}pt">${all()}</div><div>${c}</div></div>`).join('')}`;
    case 'right-margin': {
      const caption = m.language === 'en' ? `${one}’s ${word.toLowerCase()}` : `${word} del ${one}`;
      return clauses
        .map(
          (c) =>
            `<div style="display:flex;margin:4pt 0"><div>${c}</div><div style="flex:none;width:${people.length * 62}pt;padding-left:8pt">${all()}${r.is(0.7) ? `<br><small>${caption}</small>` : ''}</div></div>`,
        )
        .join('');
    }
    case 'caption-after':
      return clauses
        .map((c) => `<p>${c} ${one}${m.language === 'en' ? '’s' : ''} ${word.toLowerCase()}: ${all()}</p>`)
        .join('');
    case 'table': {
      const heads = people.map((w) => `<th>${nameOf(m, w, people.length)} ${word.toLowerCase()}</th>`).join('');
      return `<table style="margin:6pt 0"><tr><th>#</th><th>${m.language === 'en' ? 'Item' : 'Punto'}</th>${heads}</tr>${clauses.map((c, i) => `<tr><td>${i + 1}</td><td>${c}</td>${people.map((w) => `<td>${blank(r, 'nothing', 'initials', w, 40)}</td>`).join('')}</tr>`).join('')}</table>`;
    }
    case 'table-of-both': {
      const both = [...people, ...peopleOf(m, [other])].slice(0, 4);
      const heads = both.map((w) => `<th>${nameOf(m, w, m.people[w.role] ?? 1)} ${word.toLowerCase()}</th>`).join('');
      const extra = r.is(0.5)
        ? `<th>${m.language === 'en' ? r.of(['Move-in', 'Condition', 'Remarks']) : 'Estado'}</th>`
        : '';
      return `<table style="margin:6pt 0"><tr><th>${m.language === 'en' ? 'Item' : 'Punto'}</th>${extra}${heads}</tr>${clauses.map((c) => `<tr><td>${c.slice(0, 40)}</td>${extra && `<td>${blank(r, 'nothing', 'text', null, 60)}</td>`}${both.map((w) => `<td>${blank(r, 'nothing', 'initials', w, 36)}</td>`).join('')}</tr>`).join('')}</table>`;
    }
    case 'heads':
      return `<p><b>${word} ${m.language === 'en' ? `of the ${one.toLowerCase()}` : `del ${one.toLowerCase()}`}</b></p>${clauses.map((c) => `<p>${all()} ${c}</p>`).join('')}`;
  }
}
