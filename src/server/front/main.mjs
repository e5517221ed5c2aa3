import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { createServer } from 'node:http';
import { resolve } from 'node:path';
import next from 'next';
import { config, databaseUrl } from '../config.mjs';
import { originOfHost, servesPath } from '../hosts.mjs';
import { runBeside } from './beside.mjs';
import { BOUNDS, lengthOf, receiveBody } from './body.mjs';
import { watchDatabase } from './database-watch.mjs';
import { protect } from './headers.mjs';
import { KnownSessions, sessionKeys } from './known-session.mjs';
import { LIMITS } from './limits.mjs';
import { log, logConsole, say, shapeOf } from './log.mjs';
import { closeAnswer, guardAnswer, openAnswers, stayOpen } from './open-answers.mjs';
import { answerJson, answerProblem } from './problem-page.mjs';
import { addressKey, Shares } from './shares.mjs';
import { Slots } from './slots.mjs';
import { hasTooMany, readTarget } from './target.mjs';

/**
 * What stands before the pages and routes, in the same process. It reads where a request goes and where it comes from,
 * refuses what cannot be an address of ours, waits for its body, and answers at once where the rest would be late: too
 * many requests at work, or a database that is away. Run by bin/start and bin/test: `node main.mjs FOLDER PORT`.
 */
const [given = '.', port = '4620'] = process.argv.slice(2);
const folder = resolve(given);
// What is started beside it is found from there.
process.chdir(folder);
/**
 * `mostTaken` requests are taken, at work and in the line before it. A proxy in front adds the address that it was
 * asked from to X-Forwarded-For: the last address there is believed where `trustProxy` says so.
 */
const { mostTaken, trustProxy } = config();

// A reader of what is said here that has gone is no reason to fall.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

logConsole();
process.on('unhandledRejection', (error) => say('error', 'Unhandled promise rejection', error));

/**
 * Says in headers of ours which request it is and where it comes from, and believes nothing that it says of that
 * itself. Returns that address.
 * @param {import('node:http').IncomingMessage} request
 */
function mark({ headers, socket }) {
  const forwarded = String(headers['x-forwarded-for'] ?? '')
    .split(',')
    .at(-1)
    ?.trim();
  for (const name of Object.keys(headers))
    if (
      /^(x-forwarded|x-zinc-|x-middleware-|x-nextjs-|x-matched-path$|next-action$|forwarded$|x-invoke)/.test(
        name,
      )
    )
      Reflect.deleteProperty(headers, name);
  headers['x-zinc-request'] = randomUUID();
  return (headers['x-zinc-address'] = (trustProxy && forwarded) || socket.remoteAddress || 'unknown');
}

const app = next({ dev: false, dir: folder, hostname: '127.0.0.1', port: Number(port) });
await app.prepare();
const handle = app.getRequestHandler();
const database = watchDatabase(databaseUrl());
const sessions = new KnownSessions();

/** The paths of the files that the build made: they are served without a slot, and nothing else is under them. */
const FIXED = '/_next/static/';
const fixedPaths = new Set(
  readdirSync(`${folder}/.next/static`, { recursive: true }).map(
    (file) => FIXED + String(file).split('/').map(encodeURIComponent).join('/'),
  ),
);

const connections = new Shares(LIMITS.connections);
const bodies = new Shares(LIMITS.bodies);
const slots = new Slots(mostTaken);

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

/**
 * By the request's id: gives up its slot, while it waits for what is worked out elsewhere. Routes in this process call
 * it (`http/slot.ts`).
 * @type {Map<string, () => void>}
 */
const giveUp = new Map();
Object.assign(globalThis, { zincGateSlots: giveUp });

/** Requests that are taken, since when. @type {Map<import('node:http').ServerResponse, { request: import('node:http').IncomingMessage, since: number }>} */
const taken = new Map();

/**
 * Takes a request whose body is here, and works on it when its turn comes; `keys` are whose it is.
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {readonly string[]} keys
 */
function take(request, response, keys) {
  const id = String(request.headers['x-zinc-request']);
  /** @param {() => void} done */
  const begin = (done) => {
    giveUp.set(id, done);
    /** @type {NodeJS.Timeout | undefined} */
    let slow;
    guardAnswer(request, response, {
      isAway: () => database.away || database.wasAway(),
      streams: () => {
        stayOpen(response, keys, done);
        leave();
      },
      begins: () => (slow ??= setTimeout(() => stayOpen(response, keys, done), LIMITS.answerWithin).unref()),
    });
    // Who asked may go while it is made, and then nobody may ever say that it is: no longer than a statement may take.
    response.on('close', () => {
      clearTimeout(slow);
      giveUp.delete(id);
      setTimeout(done, LIMITS.letGoAfter).unref();
    });
    void handle(request, response)
      .catch((/** @type {unknown} */ error) => {
        say('error', 'A request failed', error);
        if (!response.headersSent) answerProblem(request, response, 503);
      })
      .finally(done);
  };
  const one = { keys, begin };
  if (!slots.take(one)) return answerProblem(request, response, 503);
  taken.set(response, { request, since: Date.now() });
  let left = false;
  const leave = () => {
    if (left) return;
    left = true;
    taken.delete(response);
    slots.leave(one);
  };
  response.on('close', leave);
}

/** Where files are sent to. */
const FOR_FILES = /\/api\/.*\/(csv|definition)$|^\/studio\/api\/making\//;
/** Only routes are sent anything: pages are read. */
const FOR_CHANGES = /^\/(studio|live\/[^/]+)\/api(\/|$)/;
const READS = ['GET', 'HEAD', 'OPTIONS'];

/**
 * The body's bounds: large files only from who is signed in. Undefined where it is larger than it may be.
 * @param {import('node:http').IncomingMessage} request @param {string} path
 */
async function boundsOf(request, path) {
  const length = lengthOf(request);
  if (length <= BOUNDS.small.most) return BOUNDS.small;
  if (length > BOUNDS.file.most || !FOR_FILES.test(path)) return undefined;
  return (await sessions.isSignedIn(request.headers.cookie)) ? BOUNDS.file : undefined;
}

/** @param {import('node:http').IncomingMessage} request @param {import('node:http').ServerResponse} response */
async function serve(request, response) {
  const from = mark(request);
  // The framework, and each part of ours, listens for its end.
  response.setMaxListeners(30);
  const refuse = (/** @type {import('./problem-page.mjs').Status} */ status) =>
    answerProblem(request, response, status);
  const target = readTarget(request.url ?? '');
  const fixed = target !== undefined && fixedPaths.has(target.path);
  if (!fixed) account(request, response);
  if ((request.url ?? '').length > LIMITS.address) return refuse(414);
  if (!target || hasTooMany(target.query)) return refuse(400);
  const { path, query } = target;
  request.url = path + query;
  const host = request.headers.host ?? '';
  const origin = originOfHost(host);
  if (origin === undefined) return refuse(421);
  if (!servesPath(host, path) || (path.startsWith('/_next/') && !fixed)) return refuse(404);
  protect(request, response, origin);
  if (!READS.includes(request.method ?? '') && !FOR_CHANGES.test(path)) return refuse(405);
  if (request.headers['transfer-encoding'] !== undefined) return refuse(411);
  if (fixed) return void handle(request, response).catch(() => response.destroy());
  if (database.away) return refuse(503);
  const bounds = await boundsOf(request, path);
  if (!bounds) return refuse(413);
  const keys = [addressKey(from), ...sessionKeys(request.headers.cookie)];
  const { received, release } = await receiveBody(request, bounds, bodies, keys);
  response.on('close', release);
  if (received === 'gone') return;
  if (received === 'slow') return refuse(408);
  if (received === 'full') return refuse(503);
  take(received, response, keys);
}

const server = createServer(
  { requestTimeout: LIMITS.fileWithin + 30_000, headersTimeout: 10_000 },
  (request, response) => {
    if (request.url === '/health') return answerJson(response, 200, { healthy: true });
    if (request.url === '/ready') {
      const ready = !database.away && database.current;
      return answerJson(response, ready ? 200 : 503, {
        ready,
        database: !database.away,
        migrations: database.current,
      });
    }
    serve(request, response).catch((/** @type {unknown} */ error) => {
      say('error', 'A request failed', error);
      if (!response.headersSent) answerProblem(request, response, 503);
    });
  },
);
server.on('connection', (socket) => {
  // Behind a proxy all connections are from it.
  const keys = trustProxy ? [] : [addressKey(socket.remoteAddress ?? '')];
  if (!connections.hasRoom(keys)) return void socket.destroy();
  connections.use(keys);
  socket.on('close', () => connections.use(keys, -1));
});

setInterval(() => {
  if (!database.away) return;
  for (const [response, { request, since }] of taken)
    if (!response.headersSent && Date.now() - since > LIMITS.latest) {
      answerProblem(request, response, 503);
      closeAnswer(response);
    }
}, 250).unref();

/** Ends the connections to the database that pages and routes, in this process, have opened. */
async function letGo() {
  /** @type {{ zincGateDatabase?: { pool: import('pg').Pool }, zincGatePatient?: { pool: import('pg').Pool }, zincGateEar?: { end: () => void } }} */
  const { zincGateDatabase, zincGatePatient, zincGateEar } = globalThis;
  zincGateEar?.end();
  await Promise.all([zincGateDatabase?.pool.end(), zincGatePatient?.pool.end(), sessions.end()]);
}

// A connection on which nothing moves is closed.
server.setTimeout(LIMITS.still);
server.listen(Number(port), '127.0.0.1');
const besides = ['prover', 'sweeper'].map((one) =>
  runBeside(folder, `server/proving/${one}`, { ZINC_SERVER: `http://127.0.0.1:${port}` }),
);
for (const signal of /** @type {const} */ (['SIGTERM', 'SIGINT']))
  process.once(signal, () => {
    // What is being answered is answered; what only waits is let go.
    database.stop();
    for (const end of besides) end();
    server.close(() => void letGo().finally(() => process.exit(0)));
    for (const one of openAnswers) one.destroy();
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), LIMITS.latest).unref();
  });
