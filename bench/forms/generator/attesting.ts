/** What stands around the signatures of generated forms: the day of signing in words, and blocks of those who are no parties. */
import type { PlaceKind } from '@gatepath/core/reading';
import { blank } from './blanks';
import type { Manner } from './manner';
import type { Role } from './wording';

/** Returns a block signed by somebody who is none of the parties: an association, an escrow officer, an interpreter. */
export function outsider(m: Manner): string {
  const { r } = m;
  const line = (kind: PlaceKind, w: number) => blank(r, m.lines, kind, null, w);
  const [who, by, name, date] =
    m.language === 'en'
      ? ([
          r.of([
            'For the association',
            'Escrow officer',
            'Interpreter',
            'For the lender',
            'Served by',
            'Title company',
          ]),
          r.of(['By', 'Signature', 'Signed']),
          r.of(['Name', 'Print name', 'Name of server']),
          'Date',
        ] as const)
      : ([r.of(['Por la asociación', 'Intérprete']), 'Firma', 'Nombre', 'Fecha'] as const);
  const named = r.is(0.5) ? `<p style="margin:8pt 0 0">${name}: ${line('name', 150)}</p>` : '';
  const day = r.is(0.7) ? `<p style="margin:8pt 0 0">${date}: ${line('date', 80)}</p>` : '';
  return `<p style="margin:14pt 0 2pt"><b>${who}${m.colon ? ':' : ''}</b></p><p style="margin:8pt 0 0">${by}: ${line('signature', 180)}</p>${named}${day}`;
}

/** Returns the day of signing in words, over or under the signatures of one role, or of all: then it is nobody's. */
export function dated(m: Manner, role: Role | null): string {
  const { r } = m;
  const drawn = m.lines === 'frame' || m.lines === 'tint' ? 'underscores' : m.lines;
  const at = (w: number) => blank(r, drawn, 'date', role && { role, ordinal: 1 }, w);
  const style = `margin:${r.int(6, 14)}pt 0 4pt`;
  if (m.language === 'es')
    return `<p style="${style}">${r.of(['En Quayside, a', 'En la ciudad, a', 'Firmado el'])} ${at(30)} de ${at(80)} de 20${at(20)}.</p>`;
  const one = role ? `the ${m.called[role][0]}` : 'the parties';
  const has = role ? 'has' : 'have';
  const begin = r.of([
    'Dated this',
    'Signed on the',
    'Dated the',
    'Signed this',
    'Executed this',
    `In witness whereof ${one} ${has} signed on this`,
    `IN WITNESS WHEREOF, ${one} ${has} signed this agreement on the`,
    `Signed by ${one} on the`,
  ]);
  const year = r.is(0.85) ? `, 20${at(20)}` : '';
  return `<p style="${style}">${begin} ${at(r.int(22, 34))} day of ${at(r.int(60, 100))}${year}${r.of(['.', '', ''])}</p>`;
}
