import { ServerResponse } from 'node:http';
import { LIMITS } from './limits.mjs';

const HEADERS = { 'Cache-Control': 'no-store', 'X-Content-Type-Options': 'nosniff' };

/** By the status: the title, and what to do. */
const WORDS = /** @type {const} */ ({
  400: ['This is not a valid address', 'The address cannot be read. Go back and follow the link again.'],
  404: ['Not found', 'There is no page at this address.'],
  405: ['Not possible here', 'This address can only be read.'],
  408: ['Too slow', 'The request did not arrive in time. Nothing was changed. Try again.'],
  411: ['Content length missing', 'Send the length of the body (Content-Length).'],
  413: [
    'Too large',
    `A file can have at most ${Math.floor(LIMITS.file / 1e6)} MB, and anything else much less. Send less.`,
  ],
  414: ['Address too long', 'Request less data at a time.'],
  421: ['Unknown host', 'Use the name that is configured (PUBLIC_URL, LIVE_ORIGIN).'],
  500: [
    'Something went wrong',
    'The server could not complete the request. The error has been logged. Go back or try again.',
  ],
  503: [
    'Temporarily unavailable',
    'The service is temporarily unavailable. No data has been lost. Try again shortly.',
  ],
});

/** @typedef {keyof typeof WORDS} Status */

/** After these, what is left of the request is not read. */
const CLOSING = [408, 411, 413, 503];

/**
 * Answers without pages and routes: as problem details (RFC 9457) to programs, as a plain page to people.
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {Status} status
 */
export function answerProblem(request, response, status) {
  const page = /text\/html/.test(request.headers.accept ?? '');
  const [title, detail] = WORDS[status];
  const body = page
    ? `<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><body><h1>${title}</h1><p>${detail}</p></body></html>`
    : JSON.stringify({
        type: `urn:zinc-gate:problem:${status === 503 ? 'away' : status === 500 ? 'failed' : 'request'}`,
        title,
        status,
        detail,
      });
  // As the platform has them: what the framework has put around them would compress the answer.
  const { writeHead, end } = ServerResponse.prototype;
  const unread = CLOSING.includes(status) && !request.complete;
  writeHead.call(response, status, {
    ...HEADERS,
    'X-Request-Id': String(request.headers['x-zinc-request'] ?? ''),
    'Content-Type': page ? 'text/html; charset=utf-8' : 'application/problem+json',
    'Content-Security-Policy': "default-src 'none'",
    ...(status === 503 && { 'Retry-After': '2' }),
    ...(unread && { Connection: 'close' }),
  });
  end.call(response, request.method === 'HEAD' ? undefined : body);
  // Nobody reads what is still to come.
  if (unread) setTimeout(() => request.destroy(), 500).unref();
}

/** @param {import('node:http').ServerResponse} response @param {number} status @param {object} body */
export function answerJson(response, status, body) {
  response.writeHead(status, { ...HEADERS, 'Content-Type': 'application/json' });
  response.end(JSON.stringify(body));
}
