/** Reasons to refuse a PDF, with what is needed to explain them. */

/** Maximum sizes of a document: points (200 inches), pixels, bytes after unpacking, operators. */
export const PAPER_LIMITS = {
  pages: 1000,
  side: 14_400,
  objects: 500_000,
  depth: 28,
  operators: 1_000_000,
  content: 48 * 1024 * 1024,
  stream: 96 * 1024 * 1024,
  pixels: 120_000_000,
  pagePixels: 400_000_000,
} as const;

/** Why a PDF is refused. */
export type PaperRefusal =
  | { problem: 'not_pdf' | 'locked' | 'broken' | 'no_pages' | 'too_many_pages' | 'too_many_objects' | 'xfa_only' }
  | { problem: 'page_size'; page: number; width: number; height: number }
  | { problem: 'too_many_operators'; page: number; n: number }
  | { problem: 'draws_itself' | 'too_deep' | 'unpacks_too_large' | 'picture_too_large'; page: number };

/** Thrown when a PDF is refused. */
export class Refused extends Error {
  constructor(readonly refusal: PaperRefusal) {
    super(refusal.problem);
  }
}
