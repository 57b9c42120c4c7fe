/** Talking to the server: one function, one kind of error. */
import type { ProblemDetails } from '@gatepath/contract';
import { pathOf, paths, type RouteName } from '@gatepath/contract/paths';

/** What the server (or the lack of it) answered, in words for the screen. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly problem: ProblemDetails,
  ) {
    super(problem.detail);
  }
  /** The last part of the problem's type: `warnings`, `dead-link` … */
  get code(): string {
    return this.problem.type.split('/').pop() ?? '';
  }
}

/** Whether the server has answered that it will not, as against not having been reached. */
export function isRefused(error: Error | null): boolean {
  return error instanceof ApiError && error.status >= 400 && error.status < 500;
}

const OFFLINE: ProblemDetails = {
  type: '/problems/offline',
  title: 'No connection',
  status: 0,
  detail: 'The server cannot be reached. Check the connection; what you did is kept and can be tried again.',
};

interface CallOptions {
  params?: Record<string, string | number>;
  query?: Record<string, string | number | undefined>;
  body?: unknown;
}

/** Calls a route of the contract and returns its answer. Throws `ApiError`. */
export async function call<T>(name: RouteName, { params, query, body }: CallOptions = {}): Promise<T> {
  const search = new URLSearchParams();
  for (const [k, v] of Object.entries(query ?? {})) if (v !== undefined && v !== '') search.set(k, String(v));
  const url = pathOf(name, params) + (search.size ? `?${search}` : '');
  let response: Response;
  try {
    response = await fetch(url, {
      method: paths[name].method,
      credentials: 'same-origin',
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new ApiError(0, OFFLINE);
  }
  if (response.status === 204) return undefined as T;
  const answer: unknown = await response.json().catch(() => null);
  if (!response.ok)
    throw new ApiError(response.status, (answer as ProblemDetails | null) ?? { ...OFFLINE, status: response.status });
  return answer as T;
}

/** Sends one file with progress (0 to 1). A plain request cannot tell how far it is, so this is the older kind. */
export function uploadFile<T>(url: string, file: File, onProgress: (part: number) => void): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', url);
    request.responseType = 'json';
    request.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    request.onload = () =>
      request.status < 300
        ? resolve(request.response as T)
        : reject(new ApiError(request.status, (request.response as ProblemDetails | null) ?? OFFLINE));
    request.onerror = () => reject(new ApiError(0, OFFLINE));
    const form = new FormData();
    form.append('file', file, file.name);
    request.send(form);
  });
}

/** A random id for an act, so that an answer that was lost on the way cannot make two of it. */
export function newId(): string {
  // randomUUID exists only on secure origins; a phone in the house may come over plain http.
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('');
}
