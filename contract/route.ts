/** What a route is: who may call it, what goes in, what comes out, and what may go wrong. */
import * as yup from 'yup';
import { TABLE_KINDS } from '@gatepath/core/intake';
import { id, language } from './fields';
import { LISTS } from './lists';
import { SMALL_BODY, type BodySize } from './limits';
import type { NamesIn, PathValue, PathValues, Wire } from './paths';
import { ANY_PROBLEM, type AnyProblem, type ProblemCode } from './problems';

/** Who may call a route: anybody, a signed-in member, or the bearer of a signing link. */
export type Who = 'anybody' | 'member' | 'link';

/** One file in a multipart form. */
export interface FileBody {
  kind: 'file';
  /** What to choose, for whoever sent none. */
  wanted: string;
  /** Most bytes. */
  most: number;
}
/**
 * Returns the description of a request body that is one file.
 *
 * @param wanted what is asked for where none came: "a sealed PDF"
 * @param most bytes
 */
export const file = (wanted: string, most: number): FileBody => ({ kind: 'file', wanted, most });

/** Answers that are no JSON: nothing at all, the bytes of a file, or a stream of server-sent events. */
export interface OtherAnswer<K extends 'nothing' | 'bytes' | 'events' = 'nothing' | 'bytes' | 'events'> {
  kind: K;
  /** Media types. */
  types: readonly string[];
}
/** An answer without content. */
export const NOTHING: OtherAnswer<'nothing'> = { kind: 'nothing', types: [] };
/** A stream of server-sent events. */
export const EVENTS: OtherAnswer<'events'> = { kind: 'events', types: ['text/event-stream'] };
/** Returns the description of an answer that is a file of one of these types. */
export const bytes = (...types: readonly string[]): OtherAnswer<'bytes'> => ({ kind: 'bytes', types });

/** A PDF file. */
export const PDF = bytes('application/pdf');
/** A PNG image. */
export const PNG = bytes('image/png');

/** What may go wrong with a file that is sent in. */
export const FILE_PROBLEMS = ['no-file', 'no-form', 'stalled', 'cut-off'] as const;

// A schema of any value: one of `unknown` would accept none with a type of its own.
/** Any schema. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnySchema = yup.ISchema<any>;
/** What a route answers: JSON by a schema, or something else. */
export type Answer = AnySchema | OtherAnswer;
/** Schema of a query. */
export type Query = yup.ObjectSchema<yup.AnyObject>;

/** What every `:name` in a path must be; what is not does not exist. */
const PATH_SCHEMAS: { [K in PathValue]: yup.Schema<PathValues[K]> } = {
  dealId: id().required(),
  partyId: id().required(),
  ruleId: id().required(),
  personId: id().required(),
  documentId: id().required(),
  beforeId: id().required(),
  incomingId: id().required(),
  packetId: id().required(),
  markId: id().required(),
  messageId: id().required(),
  viewId: id().required(),
  textId: id().required(),
  shelfId: id().required(),
  noticeId: id().required(),
  rowId: id().required(),
  memberId: id().required(),
  invitationId: id().required(),
  sessionId: id().required(),
  token: id().required(),
  page: yup.number().integer().min(1).max(100_000).required(),
  sha256: yup
    .string()
    .matches(/^[0-9a-f]{64}$/)
    .required(),
  list: yup.string().oneOf(LISTS).required(),
  tableKind: yup.string().oneOf(TABLE_KINDS).required(),
  language: language().required(),
};

/** What is declared of a route besides its method and path. */
export interface Told {
  who: Who;
  summary: string;
  body?: AnySchema | FileBody;
  query?: Query;
  answer: Answer;
  /** What may go wrong beside `ANY_PROBLEM`. */
  problems: readonly Exclude<ProblemCode, AnyProblem>[];
  /** How much a JSON body may hold. */
  size?: BodySize;
  /** Whether one address may call it only thirty times a minute. */
  slow?: boolean;
  /** Whether the bearer of a signing link may call it before the second step, where one is asked for. */
  beforeStep?: boolean;
}

/** A route: who may call it, its body, query, answer and problems. */
export interface Route extends Told, Wire {
  /** What the path is filled in with. */
  params: AnySchema;
  size: BodySize;
}

/**
 * Returns a route of the contract. Its type keeps the types of request and answer; `serve` and `call` infer from it.
 */
export function route<const W extends Wire, const T extends Told>(
  wire: W,
  told: T,
): W & T & Pick<Route, 'size'> & { params: yup.ObjectSchema<Pick<PathValues, NamesIn<W['path']> & PathValue>> } {
  const names = [...wire.path.matchAll(/:(\w+)/g)].map((m) => m[1] as NamesIn<W['path']> & PathValue);
  const params = yup.object(Object.fromEntries(names.map((n) => [n, PATH_SCHEMAS[n]])));
  return {
    size: SMALL_BODY,
    ...wire,
    ...told,
    // Made of the names in the path, which is what the type says.
    params: params as unknown as yup.ObjectSchema<Pick<PathValues, NamesIn<W['path']> & PathValue>>,
  };
}

/** Returns whether a body is a file. */
export const isFile = (body: Told['body']): body is FileBody => !!body && 'kind' in body;
/** Returns whether an answer is something other than JSON. */
export const isOther = (answer: Answer): answer is OtherAnswer => 'kind' in answer;

/** What whoever may not call a route, or not yet, is told. */
const BY_WHO = {
  anybody: [],
  member: ['sign-in'],
  link: ['dead-link', 'withdrawn', 'taken-out', 'lapsed', 'not-your-turn', 'step-wanted'],
} as const satisfies Record<Who, readonly ProblemCode[]>;

/** Returns all problems that a route may answer with. */
export const problemsOf = (r: Pick<Route, 'who' | 'problems'>): ProblemCode[] => [
  ...new Set<ProblemCode>([...ANY_PROBLEM, ...BY_WHO[r.who], ...r.problems]),
];
/** The same as a type. */
export type ProblemOf<R extends Pick<Route, 'who' | 'problems'>> =
  | AnyProblem
  | (typeof BY_WHO)[R['who']][number]
  | R['problems'][number];
