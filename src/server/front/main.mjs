import { randomUUID } from 'node:crypto';
import { createServer, ServerResponse } from 'node:http';
import next from 'next';
import { config, databaseUrl } from '../config.mjs';
import { originOfHost, servesPath } from '../hosts.mjs';
import { runBeside } from './beside.mjs';
import { watchDatabase } from './database-watch.mjs';
import { protect } from './headers.mjs';
import { log, shapeOf } from './log.mjs';
import { told } from './told.mjs';

/**
 * What stands before the pages and routes, in the same process. It says where a request comes from, refuses what
 * cannot be an address of ours, and answers at once where the rest would be late: too many requests at work, or a
 * database that is away. Run by bin/start and bin/test: `node main.mjs FOLDER PORT`.
 */
const [folder = '.', port = '4620'] = process.argv.slice(2);
/**
 * So many requests are taken, at work and in the line before it: the last of them waits about two seconds. A proxy
 * in front adds the address that it was asked from to X-Forwarded-For: the last one is believed where that is said.
 */
const { mostTaken, trustProxy } = config();
/** So many of them are worked on at once: enough that nobody waits for one that waits for the database. */
const AT_ONCE = 16;
/** With the database away, what has not been answered by then is answered here. */
const LATEST = 8000;
/** So long after its reader has gone a request counts as being worked on, at most. */
const LET_GO_AFTER = 5000;
const MOST_ADDRESS = 8000;
/** Bodies are kept whole before they are looked at: only files of people or rows, from somebody with a session, are large. */
const MOST_BODY = 1_500_000;
const MOST_FILE = 31_000_000;
/** So many of those at once. */
const MOST_FILES = 3;

// A reader of what is said here that has gone is no reason to fall.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

/** @param {unknown} one */
const safe = (one) =>
  one instanceof Error
    ? told(one)
    : typeof one === 'string'
      ? one
          .split('\n')[0]
          ?.replace(/(Failed query|params).*/s, '')
          .slice(0, 160)
      : typeof one;
/** @param {'error' | 'warn' | 'info'} level @param {unknown[]} all */
const say = (level, ...all) => log[level]({ said: all.map(safe) });

for (const level of /** @type {const} */ (['error', 'warn', 'log', 'info']))
  // What the framework says goes to the log by what it is, not by what it quotes.
  globalThis.console[level] = (...all) => say(level === 'log' ? 'info' : level, ...all);
process.on('unhandledRejection', (error) => say('error', 'A promise was left', error));

const HEADERS = { 'Cache-Control': 'no-store', 'X-Content-Type-Options': 'nosniff' };
const TITLES = {
  400: 'This is no address',
  404: 'Not found',
  411: 'The length is missing',
  413: 'Too large',
  414: 'This address is too long',
  421: 'Nothing is served under this name',
  500: 'Something went wrong',
  503: 'Away for a moment',
};
const DETAILS = {
  400: 'It cannot be read. Go back, and follow the link again.',
  404: 'There is nothing at this address.',
  411: 'Say how long the body is (Content-Length).',
  413: `At most ${Math.floor(MOST_FILE / 1e6)} MB of a file can be taken at once, and much less of anything else. Send less.`,
  414: 'Ask for less at once.',
  421: 'Ask by the name that is configured (PUBLIC_URL, LIVE_ORIGIN).',
  500: 'The server could not do this. It has been logged. Go back, or try again.',
  503: 'This cannot be answered at the moment. Nothing is lost; try again shortly.',
};

/**
 * Answers without the rest: as problem details (RFC 9457) to programs, as a plain page to people.
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {keyof typeof TITLES} status
 */
function answer(request, response, status) {
  const page = /text\/html/.test(request.headers.accept ?? '');
  const body = page
    ? `<!doctype html><html lang="en"><meta charset="utf-8"><title>${TITLES[status]}</title><body><h1>${TITLES[status]}</h1><p>${DETAILS[status]}</p></body></html>`
    : JSON.stringify({
        type: `urn:zinc-gate:problem:${status === 503 ? 'away' : status === 500 ? 'failed' : 'request'}`,
        title: TITLES[status],
        status,
        detail: DETAILS[status],
      });
  // As the platform has them: what the framework has put around them would compress the answer.
  const { writeHead, end } = ServerResponse.prototype;
  writeHead.call(response, status, {
    ...HEADERS,
    'X-Request-Id': String(request.headers['x-zinc-request'] ?? ''),
    'Content-Type': page ? 'text/html; charset=utf-8' : 'application/problem+json',
    'Content-Security-Policy': "default-src 'none'",
    ...(status === 503 && { 'Retry-After': '2' }),
    ...((status === 411 || status === 413) && { Connection: 'close' }),
  });
  end.call(response, request.method === 'HEAD' ? undefined : body);
}

/** Is it a path that can be read: its escapes are UTF-8 (RFC 3629), without a null character? @param {string} path */
function isReadable(path) {
  try {
    return !decodeURIComponent(path.split('?')[0] ?? '').includes('\0') && !/%00/.test(path);
  } catch {
    return false;
  }
}

/**
 * Says in headers of ours which request it is and where it comes from, and believes nothing that it says of that
 * itself.
 * @param {import('node:http').IncomingMessage} request
 */
function mark({ headers, socket }) {
  const forwarded = String(headers['x-forwarded-for'] ?? '')
    .split(',')
    .at(-1)
    ?.trim();
  for (const name of Object.keys(headers))
    if (/^(x-forwarded|x-zinc-|x-middleware-|x-nextjs-|forwarded$|x-invoke)/.test(name))
      Reflect.deleteProperty(headers, name);
  headers['x-zinc-request'] = randomUUID();
  headers['x-zinc-address'] = (trustProxy && forwarded) || socket.remoteAddress || 'unknown';
}

/** Leaves an answer that was given here as it is, whatever comes later. @param {import('node:http').ServerResponse} response */
function close(response) {
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

const app = next({ dev: false, dir: folder, hostname: '127.0.0.1', port: Number(port) });
await app.prepare();
const handle = app.getRequestHandler();
const database = watchDatabase(databaseUrl());

/** One line in the log for each request, with the id that its answer carries. @param {import('node:http').IncomingMessage} request @param {import('node:http').ServerResponse} response */
function account(request, response) {
  const begun = performance.now();
  const id = request.headers['x-zinc-request'];
  response.setHeader('X-Request-Id', String(id));
  response.on('close', () =>
    log.info({
      request: id,
      method: request.method,
      path: shapeOf(request.url ?? ''),
      // Who asked may have gone before there was an answer.
      status: response.headersSent ? response.statusCode : 499,
      ms: Math.round(performance.now() - begun),
    }),
  );
}

/** Answers that stay open to tell news (server-sent events) are not at work: they have a bound of their own. */
const MOST_OPEN = 500;
/** @type {Set<import('node:http').ServerResponse>} */
const open = new Set();

/**
 * Lets an answer stay open, once it has begun, beside those at work.
 * @param {import('node:http').ServerResponse} response @param {() => void} done
 */
function stayOpen(response, done) {
  if (open.has(response) || !/^text\/event-stream/.test(String(response.getHeader('content-type')))) return;
  if (open.size >= MOST_OPEN) return void response.destroy();
  open.add(response);
  response.on('close', () => open.delete(response));
  done();
}

/**
 * A page that could not be made is told in words of ours; while the database is away it is that. `done`: the answer
 * goes on, but is not at work any more.
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {() => void} done
 */
function guard(request, response, done) {
  const { write, end, flushHeaders } = response;
  const failed = () => {
    if (response.headersSent || response.statusCode !== 500) return false;
    if (!/html/.test(String(response.getHeader('content-type') ?? 'html'))) return false;
    for (const name of response.getHeaderNames()) response.removeHeader(name);
    answer(request, response, database.away || database.wasAway() ? 503 : 500);
    close(response);
    return true;
  };
  /** @param {unknown[]} all */
  const guardedWrite = (...all) => {
    stayOpen(response, done);
    return failed() || Reflect.apply(write, response, all);
  };
  /** @param {unknown[]} all */
  const guardedEnd = (...all) => (failed() ? response : Reflect.apply(end, response, all));
  const guardedFlush = () => void (failed() || flushHeaders.call(response));
  Object.assign(response, { write: guardedWrite, end: guardedEnd, flushHeaders: guardedFlush });
}

/** @typedef {{ request: import('node:http').IncomingMessage, response: import('node:http').ServerResponse, large: boolean, since: number }} Taken */
/** @type {Set<Taken>} */
const taken = new Set();
/** @type {Taken[]} */
const line = [];
let atWork = 0;

/** Each turn of the loop takes in one connection: so many turns pass before the next is begun. */
const TURNS = 16;
let waiting = false;

/** Begins the next in the line, after what has come in meanwhile is heard: some of it may have to be refused. */
function workOn(turns = TURNS) {
  if (waiting && turns === TURNS) return;
  waiting = true;
  setImmediate(() => {
    if (turns > 0) return workOn(turns - 1);
    waiting = false;
    begin();
  });
}

function begin() {
  const one = atWork < AT_ONCE ? line.shift() : undefined;
  if (!one) return;
  if (line.length > 0) workOn();
  if (!taken.has(one)) return;
  atWork++;
  const { request, response } = one;
  let works = true;
  const done = () => {
    if (!works) return;
    works = false;
    atWork--;
    workOn();
  };
  guard(request, response, () => {
    taken.delete(one);
    done();
  });
  // Who asked may go while it is made, and then nobody may ever say that it is: no longer than a statement may take.
  response.on('close', () => setTimeout(done, LET_GO_AFTER).unref());
  void handle(request, response)
    .catch((/** @type {unknown} */ error) => {
      say('error', 'A request failed', error);
      if (!response.headersSent) answer(request, response, 503);
    })
    .finally(done);
}

/** @param {import('node:http').ServerResponse} response @param {number} status @param {object} body */
function tell(response, status, body) {
  response.writeHead(status, { ...HEADERS, 'Content-Type': 'application/json' });
  response.end(JSON.stringify(body));
}

const server = createServer({ requestTimeout: 60_000, headersTimeout: 10_000 }, (request, response) => {
  const path = request.url ?? '/';
  if (path === '/health') return tell(response, 200, { healthy: true });
  if (path === '/ready') {
    const ready = !database.away && database.current;
    return tell(response, ready ? 200 : 503, {
      ready,
      database: !database.away,
      migrations: database.current,
    });
  }
  const fixed = path.startsWith('/_next/static/');
  mark(request);
  if (!fixed) account(request, response);
  if (path.length > MOST_ADDRESS) return answer(request, response, 414);
  if (!path.startsWith('/') || !isReadable(path)) return answer(request, response, 400);
  const host = request.headers.host ?? '';
  const origin = originOfHost(host);
  if (origin === undefined) return answer(request, response, 421);
  if (!servesPath(host, path)) return answer(request, response, 404);
  protect(request, response, origin);
  if (request.headers['transfer-encoding'] !== undefined) return answer(request, response, 411);
  const isFile =
    /\/(people\/csv|records\/[^/]+\/csv|making\/(look|sheets))(\?|$)/.test(path) &&
    request.headers.cookie !== undefined;
  if (Number(request.headers['content-length'] ?? 0) > (isFile ? MOST_FILE : MOST_BODY))
    return answer(request, response, 413);
  const large = Number(request.headers['content-length'] ?? 0) > MOST_BODY;
  if (large && [...taken].filter((one) => one.large).length >= MOST_FILES)
    return answer(request, response, 503);
  if (!fixed && (database.away || taken.size >= mostTaken)) return answer(request, response, 503);
  if (fixed) return void handle(request, response).catch(() => response.destroy());
  const one = { request, response, large, since: Date.now() };
  taken.add(one);
  response.on('close', () => taken.delete(one));
  line.push(one);
  workOn();
});

setInterval(() => {
  if (!database.away) return;
  for (const { request, response, since } of taken)
    if (!response.headersSent && Date.now() - since > LATEST) {
      answer(request, response, 503);
      close(response);
    }
}, 250).unref();

/** Ends the connections to the database that pages and routes, in this process, have opened. */
async function letGo() {
  /** @type {{ zincGateDatabase?: { pool: import('pg').Pool }, zincGatePatient?: { pool: import('pg').Pool }, zincGateEar?: { end: () => void } }} */
  const { zincGateDatabase, zincGatePatient, zincGateEar } = globalThis;
  zincGateEar?.end();
  await Promise.all([zincGateDatabase?.pool.end(), zincGatePatient?.pool.end()]);
}

server.listen(Number(port), '127.0.0.1');
const endProver = runBeside(folder, 'src/server/proving/prover.ts', {
  ZINC_SERVER: `http://127.0.0.1:${port}`,
});
for (const signal of /** @type {const} */ (['SIGTERM', 'SIGINT']))
  process.once(signal, () => {
    // What is being answered is answered; what only waits is let go.
    database.stop();
    endProver();
    server.close(() => void letGo().finally(() => process.exit(0)));
    for (const one of open) one.destroy();
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), LATEST).unref();
  });
