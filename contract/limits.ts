/** How much one request may hold; checked before anything of it is understood. */

/** Most bytes, and most values (numbers, texts, lists, keys), of a JSON body. */
export interface BodySize {
  bytes: number;
  values: number;
  /** How deep it may stand, where that is more than in any other. */
  depth?: number;
}

/** What most requests need, and a good deal more. */
export const SMALL_BODY: BodySize = { bytes: 256 * 1024, values: 6_000 };
/** Edits of a draft, drawn hands, documents of a thousand pages. */
export const LARGE_BODY: BodySize = { bytes: 4 * 1024 * 1024, values: 250_000 };
/** The text of a form: tables in lists in conditions. */
export const WRITTEN_BODY: BodySize = { bytes: 2 * 1024 * 1024, values: 150_000, depth: 48 };
/** How deep lists and objects may stand in each other; the deepest body there is has six. */
export const BODY_DEPTH = 16;

/** The largest file that is taken, in bytes. */
export const MAX_FILE = 50 * 1024 * 1024;
/** The largest photo of somebody's writing, in bytes. */
/** Most bytes of a table that is brought in. */
export const MAX_TABLE = 5 * 1024 * 1024;
/** Maximum size of a picture, in bytes. */
export const MAX_PICTURE = 20 * 1024 * 1024;

/** The most edits of a draft that one request may hold. */
export const EDITS_AT_ONCE = 4_000;
/** As many of them as a desk sends in one go. */
export const EDITS_A_PORTION = 1_000;

/** How long a one-time code works. */
export const CODE_MINUTES = 15;
/** Resolutions in which pages are drawn; what is asked for is rounded up to one of them. */
export const PAGE_DPIS = [24, 72, 108, 144, 216, 288] as const;

/** What a paper can be brought in as. */
export const PAPER_KINDS = ['pdf', 'docx', 'xlsx', 'text', 'picture'] as const;
/** One of `PAPER_KINDS`. */
export type PaperKind = (typeof PAPER_KINDS)[number];

/** What a screen can hear of, each with an id behind it: `deal:…`, `packet:…`, `today:firm`. */
export const TOPIC_KINDS = ['deal', 'packet', 'today', 'shelf', 'notice', 'incoming'] as const;
/** A topic of live updates: its kind and an id. */
export type Topic = `${(typeof TOPIC_KINDS)[number]}:${string}`;
/** Topics that one stream may be about. */
export const MOST_TOPICS = 60;
