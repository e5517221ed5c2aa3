import { accessSync, constants, mkdirSync } from 'node:fs';
import { Cluster, freePort } from './cluster.mjs';
import { checkEnvironment, readOptions, readPort } from './options.mjs';
import { needNpmPackages } from './packages.mjs';
import { DATA, endProcess, endWaitedFor, pause, say, Unable } from './run.mjs';
import { build, keepIndexes, serve, setUpDatabase } from './server.mjs';
import { dropState, isOurs, readState, writeState } from './state.mjs';

const HELP = `bin/start [--fresh] [--empty] [--port N]

Installs missing packages, starts PostgreSQL with its data in .data/, loads the demo on the first start,
builds if the sources have changed, and serves on 127.0.0.1. Press Ctrl-C to stop; the data is kept. PostgreSQL and the server are restarted if they stop unexpectedly.

  --fresh    delete all data first and start from scratch
  --empty    create a new database without the demo, with one builder whose random password is shown once
  --port N   port to serve on (default: 4620, or another free port)

If DATABASE_URL is set, that PostgreSQL server is used instead. ZINC_GATE_DATA sets a data folder other than .data/.
Set PUBLIC_URL if browsers reach the server at another address. All settings are in docs/operating.md.`;

/** A server that ends so often within a minute is not started again. */
const MOST_ENDS = 5;

/** @type {(() => Promise<void>)[]} */
const toStop = [];
let stopping = false;
let started = false;

/** Ends what was started, the last first. @param {number} code */
async function stop(code) {
  if (stopping) return;
  stopping = true;
  endWaitedFor();
  for (const one of toStop.reverse()) await one();
  dropState();
  process.exit(code);
}

async function main() {
  const { values } = readOptions('bin/start', {
    fresh: { type: 'boolean', default: false },
    empty: { type: 'boolean', default: false },
    port: { type: 'string', default: process.env['PORT'] ?? '4620' },
    help: { type: 'boolean', default: false },
  });
  if (values.help) return say(HELP);
  const wanted = readPort(String(values.port));
  needFolder();
  await clearUp();
  started = true;
  writeState({ start: process.pid });
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
    process.on(signal, () => {
      if (!stopping) say('\nStopping…');
      void stop(0);
    });
  await needNpmPackages();
  await checkEnvironment();
  const given = process.env['DATABASE_URL'];
  const database = given
    ? { url: given, owner: process.env['MIGRATION_URL'] ?? given }
    : await ownDatabase(values.fresh === true);
  await build();
  say('Preparing the database…');
  const { first, demo } = await setUpDatabase(database, { empty: values.empty === true });
  const port = await freePort(wanted);
  if (wanted !== 0 && port !== wanted) say(`Port ${wanted} is in use; using port ${port} instead.`);
  const address = await keepServing(database.url, port);
  toStop.push(keepIndexes(database.owner));
  say('');
  say(`  Studio        ${address}/studio`);
  if (demo) {
    say(`  Application   ${address}/live/larkfield`);
    say('');
    say(`  Sign in to the studio as ${demo.email}, password ${demo.password}`);
    say('  All demo accounts have the same password, for example priya.raman@larkfield.example (Registrar).');
  } else if (first) {
    say('');
    say(`  Sign in as ${first.email}, password ${first.password}`);
    say('  This password will not be shown again.');
  }
  say('');
  say(`Press Ctrl-C to stop. The data is kept in ${DATA}.`);
}

/** Serves, and starts the server again where it ends by itself. Returns its address. @param {string} url @param {number} port */
async function keepServing(url, port) {
  /** @type {number[]} */
  let ends = [];
  let stopServer = async () => {};
  toStop.push(() => stopServer());
  const begin = async () => {
    const { child, address, stop: end } = await serve(url, port);
    stopServer = end;
    writeState({ start: process.pid, server: child.pid ?? 0, address });
    child.on('exit', () => void again());
    return address;
  };
  const again = async () => {
    if (stopping) return;
    ends = [...ends.filter((at) => Date.now() - at < 60_000), Date.now()];
    if (ends.length >= MOST_ENDS) {
      say(`The server stopped ${MOST_ENDS} times within a minute. See ${DATA}/server.log for details.`);
      return stop(1);
    }
    say('The server stopped unexpectedly. Restarting it…');
    await begin().catch(async (error) => {
      say(error.message);
      await pause(1000);
      await again();
    });
  };
  return begin();
}

/** @param {boolean} fresh */
async function ownDatabase(fresh) {
  const cluster = new Cluster('postgres');
  if (fresh) {
    say('Deleting all data…');
    if (cluster.adopt()) await cluster.stop();
    cluster.stopping = false;
    cluster.remove();
  }
  toStop.push(() => cluster.stop());
  await cluster.start();
  cluster.keep();
  return cluster.database('zinc_gate');
}

function needFolder() {
  try {
    mkdirSync(DATA, { recursive: true });
    accessSync(DATA, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch {
    throw new Unable(
      `The data folder ${DATA} cannot be read or written. Fix its permissions, or set another folder with ZINC_GATE_DATA.`,
    );
  }
}

/** Ends what a killed start left behind; refuses to run twice. */
async function clearUp() {
  const { start, server, address } = readState();
  if (isOurs(start, 'start.mjs') && start !== process.pid)
    throw new Unable(`Zinc Gate is already running: ${address ?? 'it is still starting'}.`);
  if (server !== undefined && isOurs(server, 'front/main.mjs')) await endProcess(server, 'SIGTERM');
}

main().catch((error) => {
  if (stopping) return;
  console.error(
    error instanceof Unable ? `\n${error.message}` : `\nThe start failed: ${error?.message ?? error}`,
  );
  if (started) void stop(1);
  else process.exit(1);
});
