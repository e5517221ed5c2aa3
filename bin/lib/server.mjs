import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { endProcess, inPackages, pause, ROOT, run, say, spawn, Unable } from './run.mjs';

const SOURCES = ['src', 'package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'];

/** Builds for production, unless the build that is here is of these very sources. */
export function build() {
  const stamp = `${ROOT}/.next/zinc-gate-sources`;
  const now = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  say('Building (about half a minute) …');
  const env = { NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' };
  const { status, output } = run(process.execPath, [inPackages('next/dist/bin/next'), 'build'], {
    env,
    quiet: true,
    allowFailure: true,
  });
  if (status !== 0) throw new Unable(`The build failed.\n${output}`);
  writeFileSync(stamp, now);
}

function fingerprint() {
  const hash = createHash('sha256');
  /** @param {string} path */
  const add = (path) => {
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) add(`${path}/${name}`);
    else hash.update(path).update(readFileSync(path));
  };
  for (const source of SOURCES) add(`${ROOT}/${source}`);
  return hash.digest('hex');
}

/**
 * Brings the database up to date and fills an empty one. Returns how to sign in.
 * @param {string} url
 * @param {{ empty?: boolean }} [how]
 * @returns {{ first?: { email: string, password: string }, demo?: { email: string, password: string } }}
 */
export function setUpDatabase(url, { empty = false } = {}) {
  const args = ['--import', 'tsx', `${ROOT}/src/server/setup.ts`, ...(empty ? ['--empty'] : [])];
  return JSON.parse(run(process.execPath, args, { env: { DATABASE_URL: url }, quiet: true }).output);
}

/**
 * Serves on loopback; returns when it answers.
 * @param {string} url
 * @param {number} port
 * @param {Record<string, string>} [environment]
 */
export async function serve(url, port, environment = {}) {
  const env = {
    ...process.env,
    NODE_ENV: /** @type {const} */ ('production'),
    NEXT_TELEMETRY_DISABLED: '1',
    DATABASE_URL: url,
    ...environment,
  };
  const args = [inPackages('next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)];
  // A group of its own: Ctrl-C reaches bin/start, which ends things in the right order.
  /** @type {import('node:child_process').ChildProcess} */
  const child = spawn(process.execPath, args, {
    cwd: ROOT,
    env,
    detached: true,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const address = `http://127.0.0.1:${port}`;
  for (let waited = 0; waited < 300; waited++) {
    if (child.exitCode !== null) break;
    const healthy = await fetch(`${address}/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (healthy) return { child, address, stop: () => endProcess(child.pid ?? 0, 'SIGTERM') };
    await pause(100);
  }
  await endProcess(child.pid ?? 0, 'SIGKILL');
  throw new Unable('The server did not start; what it said stands above.');
}
