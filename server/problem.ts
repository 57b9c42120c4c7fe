import type { ProblemDetails } from '@gatepath/contract';
import type { Refusal } from '@gatepath/core/routing';

/** An error that is told to the client as problem details (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    readonly detail: string,
    readonly fields: Record<string, string> = {},
    /** The core's refusal behind it, to be said in another language. */
    readonly refusal: Refusal | null = null,
    /** After how many seconds it is worth trying again; null where that is not known. */
    readonly retryAfter: number | null = null,
  ) {
    super(detail);
  }

  toBody(): ProblemDetails {
    return {
      type: `/problems/${this.code}`,
      title: this.title,
      status: this.status,
      detail: this.detail,
      ...(Object.keys(this.fields).length ? { fields: this.fields } : {}),
    };
  }
}

const UNUSABLE: Refusal['code'][] = [
  'bad_value',
  'bad_plan',
  'bad_contact',
  'bad_day',
  'reason_wanted',
  'question_wanted',
  'fills_itself',
  'filled_by_sender',
  'file_wanted',
];

/** A refusal of the core as a problem. */
export function refused(refusal: Refusal): Problem {
  const { code, sentence } = refusal;
  const unusable = UNUSABLE.includes(code);
  const name = code.startsWith('ended_') ? 'ended' : code.replace(/_/g, '-');
  return new Problem(
    unusable ? 422 : 409,
    name,
    unusable ? 'Cannot be used' : 'Not possible now',
    sentence,
    {},
    refusal,
  );
}

/** Nothing of that name is here, or the asker may not know of it: the two answers are the same. */
export function notFound(what: string): Problem {
  return new Problem(404, 'not-found', 'Not found', `${what} is not here. It may have been removed.`);
}

/** The request cannot be carried out as things stand. */
export function conflict(code: string, detail: string): Problem {
  return new Problem(409, code, 'Not possible now', detail);
}

/** What was sent in does not do; `detail` names the thing and the way out. */
export function unusable(code: string, detail: string, fields?: Record<string, string>): Problem {
  return new Problem(422, code, 'Cannot be used', detail, fields);
}
