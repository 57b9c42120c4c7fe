/** Contracts that were filled in: how many of their values are read, and whether what is offered as certain is right. */
import { INTAKE_FORMS } from './intake/forms';
import { LATER_FORMS } from './intake/later-forms';
import { measureIntake, type FieldTally } from './intake/measure';

const share = (a: number, b: number) => (b ? `${((100 * a) / b).toFixed(1)} %` : '–');

/** Returns the counts of all fields together. */
function together(tallies: Map<string, FieldTally>): FieldTally {
  const all: FieldTally = { printed: 0, found: 0, certain: 0, right: 0 };
  for (const t of tallies.values())
    for (const key of ['printed', 'found', 'certain', 'right'] as const) all[key] += t[key];
  return all;
}

/** Measures all contracts, each filled three times and every fifth of them scanned, and prints it by field. */
export async function intakeAccuracy(say: (text: string) => void): Promise<Record<string, Record<string, FieldTally>>> {
  const out: Record<string, Record<string, FieldTally>> = {};
  for (const [set, forms] of [
    ['contracts', INTAKE_FORMS],
    ['contracts labeled later', LATER_FORMS],
  ] as const) {
    say(`Reading filled ${set}: ${forms.length} forms`);
    const tallies = await measureIntake(() => undefined, { forms });
    for (const [field, t] of [...tallies, ['all', together(tallies)] as const])
      say(
        `  ${field.padEnd(18)} found ${t.found} of ${t.printed} (${share(t.found, t.printed)}), certain and right ${t.right} of ${t.certain} (${share(t.right, t.certain)})`,
      );
    out[set] = Object.fromEntries(tallies);
  }
  return out;
}
