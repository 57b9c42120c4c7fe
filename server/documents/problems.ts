/** Why a file cannot be used, for the person who added it: the problem and the way out. */
import type { PaperCode } from '@gatepath/contract/routes';
import type { ConvertProblem, SortProblem } from '../uploads/convert';
import type { PaperRefusal } from '../uploads/refusal';
import { WorkFailure } from '../work/failure';
import { dashed } from '@gatepath/contract/routes';

/** Anything that can be wrong with a file. */
export type PaperProblem =
  | PaperRefusal
  | { problem: SortProblem | 'empty' | 'too_large' }
  | ConvertProblem
  | { problem: 'gave_up'; failure: WorkFailure };

const whole = (n: number) => Math.round(n).toLocaleString('en-US');
const inches = (points: number) => `${(Math.round((points / 72) * 10) / 10).toLocaleString('en-US')}`;
const AGAIN = 'Open it elsewhere, print it to PDF, and add that.';

/** Returns the sentence for a problem. */
export function wordsOfProblem(p: PaperProblem, file: string): string {
  const f = `“${file}”`;
  switch (p.problem) {
    case 'empty':
      return `${f} is empty. Choose the file again.`;
    case 'too_large':
      return `${f} is larger than 50 MB. Split it or save it smaller, then add it again.`;
    case 'not_pdf':
      return `${f} is not a PDF. Save or print it as a PDF, then add that.`;
    case 'locked':
      return `${f} is locked with a password or restrictions. Save an unlocked copy (print it to PDF), then add that.`;
    case 'broken':
      return `${f} is damaged and cannot be read. Ask for it again, or open it elsewhere and save it anew.`;
    case 'cut_short':
      return `${f} ends in the middle: a part of the picture is missing. Send it again, or take the photo anew.`;
    case 'no_pages':
      return `${f} has no pages.`;
    case 'too_many_pages':
      return `${f} has more than 1,000 pages. Split it, then add the parts.`;
    case 'too_many_objects':
      return `${f} is made of too many pieces to be read. ${AGAIN}`;
    case 'xfa_only':
      return `${f} is a form whose pages are not in the file (they are made by one program as it opens). ${AGAIN}`;
    case 'page_size':
      return `Page ${p.page} of ${f} is ${inches(p.width)} by ${inches(p.height)} inches; a page is at most 200 inches a side, and not smaller than a stamp. ${AGAIN}`;
    case 'too_many_operators':
      return `Page ${p.page} of ${f} draws ${whole(p.n)} lines and letters or more; 1,000,000 is the maximum. Print it to PDF as a picture, and add that.`;
    case 'draws_itself':
      return `Page ${p.page} of ${f} contains a drawing that draws itself without end. ${AGAIN}`;
    case 'too_deep':
      return `Page ${p.page} of ${f} contains drawings nested too deeply. ${AGAIN}`;
    case 'unpacks_too_large':
      return `Page ${p.page} of ${f} unpacks to more than a page may hold. ${AGAIN}`;
    case 'picture_too_large':
      return `Page ${p.page} of ${f} contains a picture with too many pixels. Save it with smaller pictures, then add that.`;
    case 'old_word':
      return `${f} is an old Word file. Save it as DOCX or PDF, then add that.`;
    case 'old_sheet':
      return `${f} is an old spreadsheet file. Save it as XLSX or PDF, then add that.`;
    case 'heic':
      return `${f} is a HEIC picture. Save it as JPEG (or send it from the phone as “most compatible”), then add that.`;
    case 'unknown':
      return `${f} is not a paper we can read. Add a PDF, a DOCX, an XLSX, a plain text, or a PNG, JPEG or WebP picture.`;
    case 'external':
      return `${f} holds parts that lie elsewhere or grow as they are read. ${AGAIN}`;
    case 'too_many_parts':
      return `${f} unpacks to more than a paper may hold. ${AGAIN}`;
    case 'cannot_convert':
      return `${f} cannot be made a PDF. ${AGAIN}`;
    case 'gave_up': {
      const { at } = p.failure;
      const what = at ? `${at[0]!.toUpperCase()}${at.slice(1)} of ${f}` : f;
      return `${what} ${p.failure.inWords('read')}. ${AGAIN}`;
    }
  }
}

/** Returns the stable code of a problem. */
export const codeOfProblem = (p: PaperProblem): PaperCode => `paper-${dashed(p.problem)}`;

/** Returns why a document's pages could not be read after it was added. */
export function whyUnread(name: string, error: unknown): string {
  if (error instanceof WorkFailure) return wordsOfProblem({ problem: 'gave_up', failure: error }, name);
  return `“${name}” could not be read. ${AGAIN}`;
}
