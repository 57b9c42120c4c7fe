/**
 * A firm's rules for notices: how long before its effective date a notice must be delivered, and when it counts as
 * delivered.
 */
import { addDays, dueDay, isDay, shortDay } from '../calendar';
import type { FactValue } from '../deal';
import type { Delivery } from '../packet/types';
import { deliveredAfter, USUAL_DELIVERY } from '../routing/delivery';

/** A rule for notices. */
export interface NoticeRule {
  id: string;
  /** "Rent change". */
  name: string;
  /** The tag with the effective date; null if there is none. */
  day: string | null;
  /** How long before that date it must be delivered. */
  term: { n: number; unit: 'days' | 'business_days' };
  delivery: Delivery;
}

/** Maximum number of notice rules per firm. */
export const MOST_NOTICE_RULES = 40;

const days = (n: number) => ({ n, unit: 'days' as const });

/** Sample rules for a firm to edit; not legal advice. */
export const SAMPLE_NOTICE_RULES: readonly NoticeRule[] = [
  { id: 'rent_change', name: 'Rent change', day: 'paper.from', term: days(60), delivery: USUAL_DELIVERY },
  {
    id: 'entry',
    name: 'Entry',
    day: 'paper.entry_on',
    term: days(2),
    delivery: { ...USUAL_DELIVERY, link: { n: 0, unit: 'days' } },
  },
  { id: 'end', name: 'End of tenancy', day: 'paper.leave_by', term: days(60), delivery: USUAL_DELIVERY },
  { id: 'house_rules', name: 'House rules', day: 'paper.from', term: days(30), delivery: USUAL_DELIVERY },
];

/** What a rule means for a notice sent on a day. */
export interface TermFound {
  /** The day it would count as delivered. */
  delivered: string;
  /** The earliest possible effective date. */
  earliest: string;
  /** What is wrong; null if nothing. */
  sentence: string | null;
}

/**
 * Returns whether a notice sent on a day is early enough for the day it takes effect.
 *
 * @param goes      the day it goes (ISO), by its link or as a letter
 * @param from      the day it holds from, as its tag is filled in; undefined while it is not known
 * @returns null where the rule has no day, or there is none to look at
 */
export function termOf(
  rule: NoticeRule,
  {
    goes,
    way,
    from,
    holidays,
  }: { goes: string; way: 'link' | 'post'; from: FactValue | undefined; holidays: readonly string[] },
): TermFound | null {
  if (rule.day === null || typeof from !== 'string' || !isDay(from)) return null;
  const delivered = deliveredAfter(rule.delivery[way], goes, holidays).day;
  const earliest = dueDay({ ...rule.term, way: 'after', roll: false }, delivered, holidays).day;
  if (from >= earliest) return { delivered, earliest, sentence: null };
  const given = countBetween(rule, delivered, from, holidays);
  const unit = rule.term.unit === 'days' ? 'days' : 'business days';
  const said = from <= delivered ? 'it would come too late' : `there would be ${given}`;
  return {
    delivered,
    earliest,
    sentence: `${rule.term.n} ${unit} are required before ${shortDay(from, goes)}, and ${said}: it counts as delivered on ${shortDay(delivered, goes)}. The earliest effective date is ${shortDay(earliest, goes)}.`,
  };
}

/** Returns the number of days of the rule's kind between two days. */
function countBetween({ term }: NoticeRule, from: string, to: string, holidays: readonly string[]): number {
  let n = 0;
  // At most as many steps as the term has days: whoever asks knows there are fewer.
  for (let day = from; n < term.n; n++) {
    day =
      term.unit === 'days'
        ? addDays(day, 1)
        : dueDay({ n: 1, unit: 'business_days', way: 'after', roll: false }, day, holidays).day;
    if (day > to) break;
  }
  return n;
}
