import { existsSync, readFileSync, rmSync } from 'node:fs';
import { get } from 'node:http';
import { createServer } from 'node:net';
import { endProcess, isAlive, pause, ROOT, spawn } from '../../bin/lib/run.mjs';

const DATA = `${ROOT}/.data/test-start`;

/** Runs bin/start until it has told how to sign in, or has ended. @param {string[]} args */
async function start(...args) {
  const child = spawn(`${ROOT}/bin/start`, args, {
    env: { ...process.env, ZINC_GATE_DATA: DATA, DATABASE_URL: undefined, LIVE_ORIGIN: 'http://apps.test' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text));
  for (let waited = 0; waited < 1800 && child.exitCode === null && !said.includes('Ctrl-C'); waited++)
    await pause(100);
  return { child, said: () => said, address: /http:\/\/[\d.:]+/.exec(said)?.[0] ?? '' };
}

/** The process ids that bin/start has noted, and its cluster's. */
function running() {
  const state = JSON.parse(readFileSync(`${DATA}/running.json`, 'utf8'));
  const [cluster] = readFileSync(`${DATA}/postgres/cluster/postmaster.pid`, 'utf8').split('\n');
  return { server: Number(state.server), cluster: Number(cluster) };
}

/** @param {string} address */
const isHealthy = (address) =>
  fetch(`${address}/health`).then(
    (answer) => answer.ok,
    () => false,
  );

/** The status of an address, asked for under a host's name. @param {string} address @param {string} host @param {string} path @returns {Promise<number | undefined>} */
const statusAt = (address, host, path) =>
  new Promise((resolve, reject) => {
    get(`${address}${path}`, { headers: { host } }, (answer) => {
      answer.resume();
      resolve(answer.statusCode);
    }).on('error', reject);
  });

/**
 * What bin/start promises: it serves, on another port if its own is taken; refuses to run twice; ends with
 * nothing left behind; takes over what a killed one left; and shows a first builder's password only once.
 * @returns {Promise<(readonly [string, boolean])[]>}
 */
export async function starting() {
  rmSync(DATA, { recursive: true, force: true });
  /** @type {(readonly [string, boolean])[]} */
  const results = [];
  const taken = createServer().listen(0, '127.0.0.1');
  await pause(100);
  const listening = taken.address();
  const port = String(typeof listening === 'object' && listening ? listening.port : 4620);

  const first = await start('--empty', '--port', port);
  const shown = /password ((\w{4}-){3}\w{4})/.exec(first.said())?.[1];
  results.push([
    'bin/start uses another port where its own is taken, and serves',
    first.said().includes(`Port ${port} is taken`) && (await isHealthy(first.address)),
  ]);
  const asked = [
    await statusAt(first.address, 'studio.test', '/studio/sign-in'),
    await statusAt(first.address, 'apps.test', '/studio/sign-in'),
    await statusAt(first.address, 'apps.test', '/studio/api/session'),
    await statusAt(first.address, 'apps.test', '/health'),
  ];
  results.push([
    'with LIVE_ORIGIN the host of released applications serves nothing of the studio',
    JSON.stringify(asked) === '[200,404,404,200]',
  ]);
  const twice = await start('--port', '0');
  results.push([
    'bin/start does not run twice on the same data',
    twice.child.exitCode === 1 &&
      twice.said().includes('running already') &&
      (await isHealthy(first.address)),
  ]);
  const left = running();
  first.child.kill('SIGKILL');
  await pause(300);
  const second = await start('--empty', '--port', port);
  results.push([
    'bin/start takes over what a killed one left, and keeps its data',
    second.said().includes('PostgreSQL is running already') &&
      running().cluster === left.cluster &&
      !isAlive(left.server) &&
      (await isHealthy(second.address)),
  ]);
  results.push([
    "the first builder's password is random, and shown once",
    shown !== undefined && !second.said().includes('password'),
  ]);
  const now = running();
  await endProcess(second.child.pid ?? 0, 'SIGINT', 60);
  results.push([
    'Ctrl-C ends server and PostgreSQL, and leaves the data',
    !isAlive(now.server) && !isAlive(now.cluster) && existsSync(`${DATA}/postgres/cluster/PG_VERSION`),
  ]);
  taken.close();
  rmSync(DATA, { recursive: true, force: true });
  return results;
}
