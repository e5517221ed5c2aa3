import * as yup from 'yup';
import { toProblems } from '@/core/model/schema';
import { log } from '../log';
import { requireSameOrigin } from '../security/origin';
import { problemResponse, Refused } from './problem';

const MOST_BYTES = 1_000_000;

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
      response.headers.set('Cache-Control', 'no-store');
      return response;
    } catch (error) {
      if (error instanceof Refused) return problemResponse(error);
      log.error({ err: error, path: new URL(request.url).pathname }, 'A request failed');
      return problemResponse(new Refused(500, 'failed', 'The server could not do this. It has been logged.'));
    }
  };
}

/** The request's JSON body, checked. Refuses what is not JSON, too large, or not of that shape. */
export async function readBody<T>(request: Request, schema: yup.Schema<T>): Promise<T> {
  if (!/^application\/json(;|$)/.test(request.headers.get('content-type') ?? ''))
    throw new Refused(415, 'not-json', 'Send the body as application/json.');
  const text = await request.text();
  if (text.length > MOST_BYTES) throw new Refused(413, 'too-large', 'The body is larger than 1 MB.');
  if (/\\u0000|\0/.test(text))
    throw new Refused(422, 'null-character', 'A text cannot hold the null character.');
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new Refused(400, 'not-json', 'The body is not valid JSON.');
  }
  return check(body, schema);
}

/** The value, if it is of that shape; else a refusal with every place where it is not. */
function check<T>(value: unknown, schema: yup.Schema<T>): T {
  try {
    return schema.validateSync(value, { strict: true, abortEarly: false }) as T;
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    throw new Refused(422, 'shape', 'The request is not of the right shape.', {
      problems: toProblems(error),
    });
  }
}

export const json = (body: unknown, init?: ResponseInit): Response => Response.json(body, init);
export const nothing = (headers?: HeadersInit): Response =>
  new Response(null, { status: 204, ...(headers && { headers }) });
