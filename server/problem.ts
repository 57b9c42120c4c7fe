import { isOneOf } from '@gatepath/core/sure';
import { TRANSIENT } from '@gatepath/contract/transient';
import { codeOfRefusal, PROBLEMS, type ProblemCode, type ProblemDetails } from '@gatepath/contract/routes';
import type { Refusal } from '@gatepath/core/routing';

interface More {
  /** What is wrong with single fields of what was sent, each in a sentence. */
  fields?: Record<string, string>;
  /** The core's refusal behind it, to be said in another language. */
  refusal?: Refusal;
  /** The language the detail is in, by its tag; a member's English goes without saying. */
  language?: string;
  /** Whether it will not pass, though others of its code do. */
  final?: boolean;
  /** After how many seconds it is worth trying again. */
  retryAfter?: number;
}

/** An error that is told to whoever asked, as problem details (RFC 9457); `detail` names the thing and the way out. */
export class Problem extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
    readonly more: More = {},
  ) {
    super(detail);
  }

  get status(): number {
    return PROBLEMS[this.code].status;
  }

  /** Returns whether the same request may succeed in a moment. */
  get transient(): boolean {
    return !this.more.final && isOneOf(TRANSIENT, this.code);
  }

  /** Returns the same problem with another message. */
  saying(detail: string): Problem {
    return new Problem(this.code, detail, this.more);
  }

  toBody(): ProblemDetails {
    const { title, status } = PROBLEMS[this.code];
    const { fields } = this.more;
    // The pairs of a code and its parts are kept by whoever makes the problem.
    return {
      type: `/problems/${this.code}`,
      title,
      status,
      detail: this.detail,
      ...(fields && Object.keys(fields).length ? { fields } : {}),
    } as ProblemDetails;
  }
}

/** Returns the problem for a refusal by the core. */
export function refused(refusal: Refusal): Problem {
  return new Problem(codeOfRefusal(refusal.code), refusal.sentence, { refusal });
}

/**
 * Returns the problem for what does not exist or the caller may not see. Both answers are the same, so that neither
 * reveals anything.
 */
export function notFound(what: string): Problem {
  return new Problem('not-found', `${what} is not here. It may have been removed.`);
}
