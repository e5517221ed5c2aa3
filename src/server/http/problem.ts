import type { Problem } from '@/core/model';

/** What is wrong with one field of a request. */
export interface FieldProblem {
  readonly field: string;
  readonly detail: string;
}

interface More {
  readonly errors?: readonly FieldProblem[];
  readonly problems?: readonly Problem[];
  /** Further members of the answer. */
  readonly members?: Readonly<Record<string, unknown>>;
  readonly headers?: Readonly<Record<string, string>>;
}

/** What the sender of a refused request is told. */
export interface Refusal {
  readonly status: number;
  readonly code: string;
  readonly detail: string;
  readonly more: More;
}

/** A request that is not done, with what its sender is told. Thrown, so that a transaction is rolled back. */
export class Refused extends Error implements Refusal {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly detail: string,
    readonly more: More = {},
  ) {
    super(detail);
  }

  /** What is told, without the error: as it goes from one process to another. */
  get refusal(): Refusal {
    const { status, code, detail, more } = this;
    return { status, code, detail, more };
  }

  static as({ status, code, detail, more }: Refusal): Refused {
    return new Refused(status, code, detail, more);
  }
}

/** The asker has gone: nobody reads this. */
export const cancelled = (): Refused =>
  new Refused(499, 'gone', 'The operation was cancelled. Nothing was changed.');

/** What was not foreseen is logged, and not told. */
export const failed = (): Refused =>
  new Refused(
    500,
    'failed',
    'The server could not complete the operation, so nothing was changed. The error has been logged.',
  );

/** The one answer for what does not exist and what is closed to the asker. */
export const notThere = (): Refused => new Refused(404, 'not-there', 'There is no page at this address.');

/** While the database is away, or too much is asked at once. */
export const away = (): Refused =>
  new Refused(
    503,
    'away',
    'The service is temporarily unavailable. No data has been lost. Try again shortly.',
    {
      headers: { 'Retry-After': '5' },
    },
  );

const TITLES: Readonly<Record<number, string>> = {
  400: 'Bad request',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  409: 'Conflict',
  410: 'Gone',
  412: 'Changed by someone else',
  413: 'Too large',
  415: 'Unsupported content type',
  421: 'Unknown host',
  422: 'Invalid values',
  428: 'Version required',
  429: 'Too many attempts',
  500: 'Something went wrong',
  503: 'Temporarily unavailable',
};

/** The refusal as problem details (RFC 9457). */
export function problemResponse({ status, code, detail, more }: Refused): Response {
  const body = {
    type: `urn:zinc-gate:problem:${code}`,
    title: TITLES[status] ?? 'Not accepted',
    status,
    detail,
    ...(more.errors && { errors: more.errors }),
    ...(more.problems && { problems: more.problems }),
    ...more.members,
  };
  return new Response(JSON.stringify(body), {
    status,
    headers: {
      'Content-Type': 'application/problem+json',
      'Cache-Control': 'no-store',
      ...more.headers,
    },
  });
}
