import { isAway, isUnstorable } from '../database/client';
import { log, errorForLog } from '../log';
import { requireSameOrigin } from './origin';
import { away, cancelled, failed, problemResponse, Refused } from './problem';

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

/** What the sender is told of an error. What was not foreseen is logged, and not told. */
function refusalOf(error: unknown, request: Request): Refused {
  if (error instanceof Refused) return error;
  if (request.signal.aborted) return cancelled();
  if (isUnstorable(error)) return new Refused(422, 'values', 'One of the values cannot be stored.');
  if (isAway(error)) {
    log.warn(
      { ...errorForLog(error), request: idOf(request), method: request.method },
      'The database was unavailable',
    );
    return away();
  }
  log.error({ ...errorForLog(error), request: idOf(request), method: request.method }, 'A request failed');
  return failed();
}

/** Which request it is in the log, and in the header X-Request-Id of its answer. */
const idOf = (request: Request): string | null => request.headers.get('x-zinc-request');

export const json = (body: unknown, init?: ResponseInit): Response => Response.json(body, init);
export const nothing = (headers?: HeadersInit): Response =>
  new Response(null, { status: 204, ...(headers && { headers }) });
