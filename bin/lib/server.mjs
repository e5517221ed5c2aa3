import { createHash } from 'node:crypto';
import {
  closeSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { DATA, endProcess, inPackages, pause, ROOT, runLong, say, spawn, Unable } from './run.mjs';

const PROGRAM = `${ROOT}/bin/lib/program.mjs`;
const SOURCES = ['src', 'package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'];

/** Builds for production, unless the build that is here is of these very sources. */
export async function build() {
  const stamp = `${ROOT}/.next/zinc-gate-sources`;
  const now = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  say('Building (about 30 seconds)…');
  const env = { NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' };
  rmSync(stamp, { force: true });
  const { status, output, said } = await runLong(
    process.execPath,
    [inPackages('next/dist/bin/next'), 'build'],
    {
      env,
      allowFailure: true,
    },
  );
  if (status !== 0) throw new Unable(`The build failed.\n${output}\n${said}`);
  writeFileSync(stamp, now);
}

function fingerprint() {
  const hash = createHash('sha256');
  /** @param {string} path */
  const add = (path) => {
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) add(`${path}/${name}`);
    // By its place in the project, so that a copy that was moved need not build again.
    else hash.update(path.slice(ROOT.length)).update(readFileSync(path));
  };
  for (const source of SOURCES) add(`${ROOT}/${source}`);
  return hash.digest('hex');
}

/**
 * Brings the database up to date and fills an empty one. Returns how to sign in.
 * @param {{ url: string, owner: string }} database as whom the server works, and as whom tables are changed
 * @param {{ empty?: boolean }} [how]
 * @returns {Promise<{ first?: { email: string, password: string }, demo?: { email: string, password: string } }>}
 */
export async function setUpDatabase({ url, owner }, { empty = false } = {}) {
  const args = [PROGRAM, 'server/setup', ...(empty ? ['--empty'] : [])];
  const env = { DATABASE_URL: url, MIGRATION_URL: owner };
  const { status, output, said } = await runLong(process.execPath, args, { env, allowFailure: true });
  if (status !== 0) throw new Unable(said.split('\n')[0] || 'The database could not be prepared.');
  return JSON.parse(output);
}

const LOG = `${DATA}/server.log`;
const MOST_LOG = 10_000_000;

function openLog() {
  mkdirSync(DATA, { recursive: true });
  return openSync(LOG, 'a', 0o600);
}

/** The server's log is started anew once it is large, with what was in it kept: the server writes to its end. */
function keepLogSmall() {
  if (!existsSync(LOG) || statSync(LOG).size <= MOST_LOG) return;
  copyFileSync(LOG, `${LOG}.1`);
  truncateSync(LOG);
}

/**
 * Sees to the indexes of live records beside the server, as who may change tables; started again a while after it ends
 * by itself. It ends with this process, since it reads from it.
 * @param {string} owner
 */
export function keepIndexes(owner) {
  let stopping = false;
  /** @type {import('node:child_process').ChildProcess | undefined} */
  let child;
  /** @type {NodeJS.Timeout | undefined} */
  let soon;
  const begin = () => {
    const log = openLog();
    child = spawn(process.execPath, [PROGRAM, 'server/index-keeper'], {
      cwd: ROOT,
      env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: owner, MIGRATION_URL: undefined },
      detached: true,
      stdio: ['pipe', log, log],
    });
    closeSync(log);
    child.on('exit', (code) => {
      if (!stopping && code !== 0) soon = setTimeout(begin, 30_000).unref();
    });
  };
  begin();
  return async () => {
    stopping = true;
    clearTimeout(soon);
    if (child?.pid) await endProcess(child.pid, 'SIGTERM');
  };
}

/**
 * Serves on loopback; returns when it answers.
 * @param {string} url
 * @param {number} port
 * @param {Record<string, string>} [environment]
 */
export async function serve(url, port, environment = {}) {
  const address = `http://127.0.0.1:${port}`;
  const env = {
    ...process.env,
    NODE_ENV: /** @type {const} */ ('production'),
    NEXT_TELEMETRY_DISABLED: '1',
    DATABASE_URL: url,
    MIGRATION_URL: undefined,
    PUBLIC_URL: process.env['PUBLIC_URL'] ?? address,
    ...environment,
  };
  keepLogSmall();
  const log = openLog();
  // A group of its own: Ctrl-C reaches bin/start, which ends things in the right order.
  /** @type {import('node:child_process').ChildProcess} */
  const child = spawn(process.execPath, [`${ROOT}/src/server/front/main.mjs`, ROOT, String(port)], {
    cwd: ROOT,
    env,
    detached: true,
    stdio: ['ignore', log, log],
  });
  closeSync(log);
  const small = setInterval(keepLogSmall, 60_000).unref();
  child.on('exit', () => clearInterval(small));
  for (let waited = 0; waited < 300; waited++) {
    if (child.exitCode !== null || child.signalCode !== null) break;
    const ready = await fetch(`${address}/ready`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (ready) return { child, address, stop: () => endProcess(child.pid ?? 0, 'SIGTERM') };
    await pause(100);
  }
  await endProcess(child.pid ?? 0, 'SIGKILL');
  throw new Unable(`The server did not start. See ${DATA}/server.log for details.`);
}
