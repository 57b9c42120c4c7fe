/** Calling the server: one function, one kind of error. Input and output types come from the contract. */
import type { ParamsOf, ProblemCode, ProblemDetails, RouteName } from '@gatepath/contract';
import { paths, pathWith } from '@gatepath/contract/paths';
import type { AnswerOf, BodyOf, FileRoute, JsonRoute, QueryOf } from '@gatepath/contract/routes';

/** The server's answer, or the lack of one, in words for the screen. */
export class ApiError extends Error {
  constructor(
    /** 0 when the server was not reached. */
    readonly status: number,
    readonly code: ProblemCode | 'offline',
    detail: string,
    /** Problems of single fields, each in a sentence. */
    readonly fields: Record<string, string> = {},
    /** The language of the detail, if the server says it. */
    readonly language: string | null = null,
  ) {
    super(detail);
  }
}

/** Returns whether the server refused, as opposed to not being reached. */
export function isRefused(error: Error | null): boolean {
  return error instanceof ApiError && error.status >= 400 && error.status < 500;
}

const offline = (status = 0) =>
  new ApiError(
    status,
    'offline',
    'The server cannot be reached. Check your connection, then try again. Nothing you did is lost.',
  );

const isProblem = (answer: unknown): answer is ProblemDetails =>
  typeof answer === 'object' && answer !== null && 'type' in answer && typeof answer.type === 'string';

/**
 * Returns the error of an answer. An answer that is not problem details comes from something between here and the
 * server.
 */
function errorOf(status: number, answer: unknown, language: string | null): ApiError {
  if (!isProblem(answer)) return offline(status);
  // A code that only a newer server knows is shown in its own words.
  const code = answer.type.slice('/problems/'.length) as ProblemCode;
  return new ApiError(status, code, answer.detail, 'fields' in answer ? answer.fields : {}, language);
}

type Part<K extends string, T> = [T] extends [undefined] ? unknown : { [X in K]: T };
/** Input of a call: names in the path, body and query, each if the route has one. */
type Input<N extends RouteName> = ([keyof ParamsOf<N>] extends [never] ? unknown : { params: ParamsOf<N> }) &
  Part<'body', BodyOf<N>> &
  ([QueryOf<N>] extends [undefined] ? unknown : { query?: Partial<QueryOf<N>> });
/** How a call is made. */
interface Manner {
  /** Completes even if the page is closed meanwhile; for small bodies only, because browsers limit it. */
  keepalive?: boolean;
}
type InputArg<N extends RouteName> = unknown extends Input<N> ? [] : [input: Input<N>, manner?: Manner];

interface AnyInput {
  params?: Partial<Record<string, string | number>>;
  query?: Record<string, string | number | undefined>;
  body?: unknown;
}

function addressOf(name: RouteName, { params = {}, query = {} }: AnyInput): string {
  const search = new URLSearchParams();
  for (const [k, v] of Object.entries(query)) if (v !== undefined && v !== '') search.set(k, String(v));
  // Not by its size: older browsers do not report it.
  const asked = search.toString();
  return pathWith(name, params) + (asked && `?${asked}`);
}

/**
 * Calls a route of the contract.
 *
 * @throws `ApiError`
 */
export async function call<N extends JsonRoute>(name: N, ...[input, manner]: InputArg<N>): Promise<AnswerOf<N>> {
  const { body, ...address }: AnyInput = input ?? {};
  let response: Response;
  try {
    response = await fetch(addressOf(name, address), {
      method: paths[name].method,
      credentials: 'same-origin',
      ...manner,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw offline();
  }
  const answer: unknown = response.status === 204 ? undefined : await response.json().catch(() => null);
  if (!response.ok) throw errorOf(response.status, answer, response.headers.get('content-language'));
  // The server's tests compare every answer with the contract.
  return answer as AnswerOf<N>;
}

/**
 * Uploads one file.
 *
 * @param onProgress receives the share uploaded, 0 to 1
 * @throws `ApiError`
 */
export function uploadFile<N extends FileRoute>(
  name: N,
  file: File,
  { onProgress, ...input }: Omit<Input<N>, 'body'> & { onProgress?: (part: number) => void },
): Promise<AnswerOf<N>> {
  return new Promise((resolve, reject) => {
    // fetch cannot report progress, so this is the older API.
    const request = new XMLHttpRequest();
    request.open(paths[name].method, addressOf(name, input as AnyInput));
    request.responseType = 'json';
    if (onProgress) request.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    request.onload = () =>
      request.status < 300
        ? resolve(request.response as AnswerOf<N>)
        : reject(errorOf(request.status, request.response, request.getResponseHeader('content-language')));
    request.onerror = () => reject(offline());
    const form = new FormData();
    form.append('file', file, file.name);
    request.send(form);
  });
}

/** Returns a random id for an act, so that the server counts an act once even if its answer was lost. */
export function newId(): string {
  // randomUUID exists only on secure origins; a phone in the office may use plain http.
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('');
}
