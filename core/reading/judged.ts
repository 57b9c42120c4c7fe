/** What is said of a judged blank: its caption as shown, and whether a date is the date of signing. */
import { cutEnd } from '../text/ends';
import type { Judged } from './classify';
import { plain, roleOfWords } from './words';

/** Returns a caption without brackets and signs that lead to the blank. */
export function tidyLabel(label: string): string {
  return cutEnd(label, /[\s([{$:;,_-]/).trim();
}

/** Returns whether a date belongs to the text, however near somebody signs: the day of an offer, the end of a term. */
export const isOfText = (j: Judged) => j.kind === 'date' && j.inText;
/**
 * Returns whether a place is filled when signing although it is not a signature: it belongs to a person and asks for
 * the date of signing.
 */
export const isSigned = (j: Judged) => j.role !== null && !isOfText(j) && isDayOfSigning(j.label);

/** Returns whether a caption asks for the day and nothing more: a date of birth is not the date of signing. */
function isDayOfSigning(label: string): boolean {
  const words = plain(label)
    .replace(/[^a-z ]+/g, ' ')
    .split(' ')
    .filter((w) => w.length > 1 && !roleOfWords(w));
  return words.every((w) => OF_SIGNING.test(w));
}
const OF_SIGNING =
  /^(?:date[ds]?|day|fecha|firma|firmad[oa]|dia|hora|time|mm|dd|yy|yyyy|aaaa|sign(?:ed|ature|ing|s)?|initial(?:s|ed)?|of|on|and|de|la|el|del|los|the|this|at|co|first|second|listing|selling|buyer|seller|s)$/;
