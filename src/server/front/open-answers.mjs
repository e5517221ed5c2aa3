import { LIMITS } from './limits.mjs';
import { answerProblem } from './problem-page.mjs';
import { Shares } from './shares.mjs';

/** Leaves an answer that was given here as it is, whatever comes later. @param {import('node:http').ServerResponse} response */
export function closeAnswer(response) {
  const nothing = () => response;
  Object.assign(response, {
    setHeader: nothing,
    appendHeader: nothing,
    removeHeader: nothing,
    writeHead: nothing,
    flushHeaders: nothing,
    write: () => true,
    end: nothing,
  });
}

/**
 * Answers that stay open are not at work: they have a bound of their own. These are server-sent events, and what takes
 * its time on its way: files and progress, and whatever its reader is slow to take.
 */
const open = new Shares(LIMITS.open);
/** @type {Set<import('node:http').ServerResponse>} */
export const openAnswers = new Set();
const STREAMS = /^(text\/event-stream|text\/csv|application\/x-ndjson)/;

/** Lets an answer stay open beside those at work. @param {import('node:http').ServerResponse} response @param {readonly string[]} keys @param {() => void} done */
export function stayOpen(response, keys, done) {
  if (openAnswers.has(response)) return;
  if (!open.hasRoom(keys)) return void response.destroy();
  openAnswers.add(response);
  open.use(keys);
  response.on('close', () => {
    openAnswers.delete(response);
    open.use(keys, -1);
  });
  done();
}

/**
 * A page that could not be made is told in words of ours; while the database is away it is that. `streams` is called
 * when an answer begins that stays open, `begins` when any other does.
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {{ streams: () => void, begins: () => void, isAway: () => boolean }} heard
 */
export function guardAnswer(request, response, { streams, begins, isAway }) {
  const { write, end, flushHeaders } = response;
  const failed = () => {
    if (response.headersSent || response.statusCode !== 500) return false;
    if (!/html/.test(String(response.getHeader('content-type') ?? 'html'))) return false;
    for (const name of response.getHeaderNames()) response.removeHeader(name);
    answerProblem(request, response, isAway() ? 503 : 500);
    closeAnswer(response);
    return true;
  };
  const begin = () => {
    if (STREAMS.test(String(response.getHeader('content-type')))) streams();
    else begins();
  };
  /** @param {unknown[]} all */
  const guardedWrite = (...all) => {
    begin();
    return failed() || Reflect.apply(write, response, all);
  };
  /** @param {unknown[]} all */
  const guardedEnd = (...all) => {
    if (failed()) return response;
    begins();
    return Reflect.apply(end, response, all);
  };
  const guardedFlush = () => void (failed() || flushHeaders.call(response));
  Object.assign(response, { write: guardedWrite, end: guardedEnd, flushHeaders: guardedFlush });
}
