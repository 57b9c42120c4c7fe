/**
 * What can go wrong, as it is told (RFC 9457): each problem has one code, which never changes, one status and one title.
 * Its `detail` is a sentence for people, in their own language; programs look at the code.
 */
import type { RefusalCode } from '@gatepath/core/routing';
import { isKeyOf, keysOf } from '@gatepath/core/sure';

interface Kind {
  status: number;
  title: string;
}

const kinds = <C extends string>(status: number, title: string, ...codes: C[]): Record<C, Kind> =>
  Object.fromEntries(codes.map((c) => [c, { status, title }])) as Record<C, Kind>;

type Dashed<S extends string> = S extends `${infer A}_${infer B}` ? `${A}-${Dashed<B>}` : S;
/** Returns a name of the core in the spelling of problem codes: `bad_value` becomes `bad-value`. */
export const dashed = <S extends string>(name: S) => name.replace(/_/g, '-') as Dashed<S>;
type Ended = Extract<RefusalCode, `ended_${string}`>;

/** Refusals of the core that come of what was sent, and not of where the packet stands. */
const UNUSABLE = [
  'bad_value',
  'bad_plan',
  'bad_contact',
  'bad_day',
  'bad_letter_day',
  'reason_wanted',
  'question_wanted',
  'fills_itself',
  'filled_by_sender',
  'file_wanted',
] as const satisfies RefusalCode[];

const OF_REFUSALS = {
  ...kinds(422, 'Cannot be used', ...UNUSABLE.map(dashed)),
  ...kinds(403, 'Not your turn', 'not-your-turn'),
  ...kinds(
    409,
    'Not possible now',
    'already-sent',
    'not-sent',
    'ended',
    'unknown-party',
    'already-done',
    'not-agreed',
    'no-hand',
    'unknown-mark',
    'not-your-mark',
    'marks-left',
    'not-executed',
    'already-sealed',
    'has-acted',
    'no-handing-over',
    'host-wanted',
    'locked',
    'too-many-questions',
    'unknown-question',
    'nobody-to-nudge',
  ),
} satisfies Record<Dashed<Exclude<RefusalCode, Ended>> | 'ended', Kind>;

/** Why a paper cannot be taken in. */
const OF_PAPERS = kinds(
  422,
  'Cannot be used',
  'paper-empty',
  'paper-too-large',
  'paper-not-pdf',
  'paper-locked',
  'paper-broken',
  'paper-cut-short',
  'paper-no-pages',
  'paper-too-many-pages',
  'paper-too-many-objects',
  'paper-xfa-only',
  'paper-page-size',
  'paper-too-many-operators',
  'paper-draws-itself',
  'paper-too-deep',
  'paper-unpacks-too-large',
  'paper-picture-too-large',
  'paper-old-word',
  'paper-old-sheet',
  'paper-heic',
  'paper-unknown',
  'paper-external',
  'paper-too-many-parts',
  'paper-cannot-convert',
  'paper-gave-up',
);

/** What may go wrong with any request, whatever it is about. */
const OF_ANYTHING = {
  ...kinds(400, 'Not understood', 'bad-request'),
  ...kinds(403, 'Not allowed', 'other-origin'),
  ...kinds(404, 'Not found', 'not-found'),
  ...kinds(413, 'Too large', 'too-large'),
  ...kinds(415, 'Not understood', 'media-type'),
  ...kinds(422, 'Cannot be used', 'invalid', 'unclean', 'too-deep', 'too-many-values'),
  ...kinds(422, 'Too much', 'too-heavy'),
  ...kinds(429, 'Too many tries', 'too-many'),
  ...kinds(500, 'Something went wrong', 'internal'),
  ...kinds(500, 'Damaged file', 'damaged'),
  ...kinds(503, 'Busy', 'busy'),
  ...kinds(507, 'No room left', 'disk-full'),
};

/** Every problem the API can return, with its HTTP status and title. */
export const PROBLEMS = {
  ...OF_ANYTHING,
  ...OF_REFUSALS,
  ...OF_PAPERS,
  // Getting in.
  ...kinds(401, 'Sign in first', 'sign-in'),
  ...kinds(401, 'Not signed in', 'wrong-password'),
  ...kinds(403, 'The set-up code is required', 'setup-token'),
  ...kinds(403, 'Owners only', 'not-owner'),
  ...kinds(409, 'Not possible now', 'member-exists', 'last-owner'),
  ...kinds(403, 'A code is wanted', 'step-wanted'),
  ...kinds(404, 'This signing link does not work', 'dead-link'),
  ...kinds(410, 'Withdrawn', 'withdrawn'),
  ...kinds(410, 'No longer needed', 'taken-out'),
  ...kinds(410, 'Lapsed', 'lapsed'),
  ...kinds(422, 'Wrong code', 'wrong-code'),
  // Several deals at once.
  ...kinds(422, 'Cannot be used', 'bad-act'),
  // Tables brought in.
  ...kinds(422, 'Cannot be used', 'bad-table', 'rows-wrong'),
  ...kinds(429, 'A moment', 'code-soon'),
  ...kinds(403, 'Not at the desk', 'not-at-desk'),
  ...kinds(403, 'Not you', 'not-you'),
  ...kinds(403, 'Not possible', 'not-demo'),
  // Files.
  ...kinds(400, 'Cut off', 'cut-off'),
  ...kinds(408, 'Stopped', 'stalled'),
  ...kinds(
    422,
    'Cannot be used',
    'no-file',
    'no-form',
    'no-paper',
    'no-picture',
    'undrawable',
    'not-worked-out',
    'no-such-page',
  ),
  // The firm, the deal and its documents.
  ...kinds(
    409,
    'Not possible now',
    'set-up',
    'in-packet',
    'replaced-already',
    'reading',
    'gaps-open',
    'sent-back',
    'sent',
    'was-sent',
    'in-rule',
    'named-twice',
  ),
  ...kinds(422, 'Cannot be used', 'time-zone', 'sealed', 'bad-fact', 'bad-status', 'unknown-member', 'bad-rule'),
  // The shelf.
  ...kinds(409, 'Not possible now', 'not-on-shelf', 'nothing-to-send'),
  ...kinds(422, 'Cannot be used', 'unfit-text', 'bad-bundle'),
  ...kinds(403, 'Locked', 'locked-setting'),
  ...kinds(403, 'Not yours to change', 'not-maker'),
  ...kinds(403, 'Not in their name', 'not-allowed-for'),
  // Packets.
  ...kinds(409, 'Not possible now', 'changed-meanwhile', 'warnings', 'not-sealed', 'agreement-changed'),
  ...kinds(422, 'The gate check stops this packet', 'gate-check'),
  ...kinds(422, 'Cannot be used', 'no-name', 'no-room', 'no-document', 'unknown-document', 'over-limits', 'letters'),
} satisfies Record<string, Kind>;

/** Code of a problem. */
export type ProblemCode = keyof typeof PROBLEMS;

/** Problems that any route may answer with; a route names the others it has. */
export type AnyProblem = keyof typeof OF_ANYTHING;
/** Problems that any route can return. */
export const ANY_PROBLEM = keysOf(OF_ANYTHING);
/** Code of a problem with a file. */
export type PaperCode = keyof typeof OF_PAPERS;
/** Codes of all problems with files. */
export const PAPER_PROBLEMS = keysOf(OF_PAPERS);
/** Codes of problems that are refusals of the core. */
export const REFUSED = keysOf(OF_REFUSALS);

/** Problems that may tell which fields of what was sent are wrong, each in a sentence. */
export const WITH_FIELDS = ['invalid', 'unclean', 'time-zone'] as const satisfies ProblemCode[];
type WithFields = (typeof WITH_FIELDS)[number];

interface Told<C extends ProblemCode> {
  type: `/problems/${C}`;
  title: string;
  status: number;
  detail: string;
}
/** A problem as it crosses the wire, told apart by `type`. */
export type ProblemDetails = {
  [C in ProblemCode]: Told<C> & (C extends WithFields ? { fields?: Record<string, string> } : unknown);
}[ProblemCode];

/** Returns the problem code of a refusal by the core. */
export function codeOfRefusal(code: RefusalCode): ProblemCode {
  const own = dashed(code);
  return isKeyOf(OF_REFUSALS, own) ? own : 'ended';
}

const PREFIX = '/problems/';
/** Returns the code of a problem that was received; null for a code that this version does not know. */
export function codeOf(type: string): ProblemCode | null {
  const code = type.startsWith(PREFIX) ? type.slice(PREFIX.length) : '';
  return isKeyOf(PROBLEMS, code) ? code : null;
}
