import type * as yup from 'yup';
import { shapeFaults } from '@/core/model';
import { isAway, isUnstorable } from '../database/client';
import { log, told } from '../log';
import { requireSameOrigin } from '../security/origin';
import { away, problemResponse, Refused } from './problem';

/**
 * The one wrapper of every route handler: refuses what another site may have sent, turns refusals into
 * problem details, tells nothing of unforeseen errors, and lets nothing be stored on the way.
 */
export function handle<Context>(
  work: (request: Request, context: Context) => Promise<Response>,
): (request: Request, context: Context) => Promise<Response> {
  return async (request, context) => {
    try {
      if (request.method !== 'GET' && request.method !== 'HEAD') requireSameOrigin(request);
      const response = await work(request, context);
      response.headers.append('Cache-Control', 'no-store');
      return response;
    } catch (error) {
      return problemResponse(refusalOf(error, request));
    }
  };
}

/** The largest whole number that the database keeps. */
export const MOST_NUMBER = 2_147_483_647;

/** What the sender is told of an error. What was not foreseen is logged, and not told. */
function refusalOf(error: unknown, request: Request): Refused {
  if (error instanceof Refused) return error;
  // Who asked has gone: nobody reads this.
  if (request.signal.aborted) return new Refused(499, 'gone', 'It was cancelled. Nothing was changed.');
  if (isUnstorable(error)) return new Refused(422, 'values', 'A value cannot be kept in this form.');
  if (isAway(error)) {
    log.warn({ ...told(error), request: idOf(request), method: request.method }, 'The database was away');
    return away();
  }
  log.error({ ...told(error), request: idOf(request), method: request.method }, 'A request failed');
  return new Refused(500, 'failed', 'The server could not do this. It has been logged.');
}

/** Which request it is in the log, and in the header X-Request-Id of its answer. */
const idOf = (request: Request): string | null => request.headers.get('x-zinc-request');

/** How large a body may be. */
interface BodyBounds {
  /** In bytes. */
  readonly bytes: number;
  /** How many values it may hold, those within each other counted one by one. */
  readonly values: number;
}

/** For what a form, a button or a small script sends. Who asks is looked at before a larger one is read. */
const SMALL: BodyBounds = { bytes: 100_000, values: 2000 };
export const LARGE: BodyBounds = { bytes: 1_000_000, values: 50_000 };

/** The request's JSON body, checked. Refuses what is not JSON, too large, or not of that shape. */
export async function readBody<T>(
  request: Request,
  schema: yup.ISchema<T>,
  { bytes, values }: BodyBounds = SMALL,
): Promise<T> {
  if (!/^application\/json(;|$)/.test(request.headers.get('content-type') ?? ''))
    throw new Refused(415, 'not-json', 'Send the body as application/json.');
  const text = await readText(request, bytes);
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new Refused(400, 'not-json', 'The body is not valid JSON.');
  }
  const problems = shapeFaults(schema, body, { values });
  if (problems.length > 0)
    throw new Refused(422, 'shape', 'The request is not of the right shape.', { problems });
  return schema.cast(body);
}

/** The request's body as text (UTF-8, RFC 3629), read no further than it may be long. */
export async function readText(request: Request, most: number): Promise<string> {
  const large = (): Refused =>
    new Refused(413, 'too-large', `The body is larger than ${Math.round(most / 1000)} kB.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw large();
  const parts: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part?.value; part = await reader?.read()) {
    length += part.value.length;
    if (length > most) {
      await reader?.cancel();
      throw large();
    }
    parts.push(part.value);
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts));
  } catch {
    throw new Refused(400, 'not-utf-8', 'The body is not UTF-8.');
  }
}

export const json = (body: unknown, init?: ResponseInit): Response => Response.json(body, init);
export const nothing = (headers?: HeadersInit): Response =>
  new Response(null, { status: 204, ...(headers && { headers }) });
