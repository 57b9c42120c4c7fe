import type { CheckRule, Finding } from './types';
import { nameIn, pageIn } from './words';

/** What a blank asks for; two of these in one label are two answers. */
const ANSWERS = [
  'name',
  'address',
  'phone',
  'email',
  'city',
  'state',
  'zip',
  'amount',
  'date',
  'age',
  'relationship',
  'number',
];

/** Finds blanks for two answers, such as "Name and phone": they can be validated and found again as neither. */
export const twoAnswersInOne: CheckRule = (input) =>
  input.marks.flatMap((m): Finding[] => {
    if (m.kind !== 'text' || m.lines || m.readOnly || !m.label) return [];
    const label = m.label.toLowerCase();
    // "City, state" joined by a sign or a word; "name of the city" is one answer.
    const parts = label.split(/[,/&]| and /);
    const asked = parts.flatMap((part) => ANSWERS.find((a) => part.trim().split(/\s+/).includes(a)) ?? []);
    if (new Set(asked).size < 2) return [];
    const half = (m.rect.w - GAP) / 2;
    const ask = (i: number) => (parts[i] ?? '').trim();
    return [
      {
        rule: 'two-answers-in-one',
        severity: 'warns',
        sentence: `“${m.label}” asks ${nameIn(input, m.partyId)} for two things in one place on ${pageIn(input, m.documentId, m.page)}.`,
        place: { documentId: m.documentId, page: m.page, partyId: m.partyId, markId: m.id },
        ...(parts.length === 2 && half >= LEAST
          ? {
              mend: {
                label: 'Split it into two places',
                edits: [
                  {
                    op: 'put' as const,
                    list: 'marks' as const,
                    item: { ...m, label: ask(0), rect: { ...m.rect, w: half } },
                  },
                  {
                    op: 'put' as const,
                    list: 'marks' as const,
                    item: {
                      ...m,
                      id: `${m.id}-2`,
                      label: ask(1),
                      rect: { ...m.rect, x: m.rect.x + half + GAP, w: half },
                    },
                  },
                ],
              },
            }
          : {}),
      },
    ];
  });

/** Gap between the two places, and the minimum width of each, in points. */
const GAP = 8;
const LEAST = 60;
