import { accessSync, constants, mkdirSync } from 'node:fs';
import { Cluster, freePort } from './cluster.mjs';
import { checkEnvironment, readOptions, readPort } from './options.mjs';
import { needNpmPackages } from './packages.mjs';
import { DATA, endProcess, endWaitedFor, pause, say, Unable } from './run.mjs';
import { build, keepIndexes, serve, setUpDatabase } from './server.mjs';
import { dropState, isOurs, readState, writeState } from './state.mjs';

const HELP = `bin/start [--fresh] [--empty] [--port N]

Installs what is missing, starts PostgreSQL with its data in .data/, loads the demo the first time,
builds if the sources changed, and serves on 127.0.0.1. Ctrl-C ends it; the data stays. PostgreSQL or a
server that ends by itself is started again.

  --fresh    delete all data first, and start over
  --empty    in a new database: no demo, one builder with a random password that is shown once
  --port N   the port to serve on (4620; another one if it is taken)

DATABASE_URL, where it is set, names a PostgreSQL to use instead; ZINC_GATE_DATA another folder than .data/.
PUBLIC_URL is where browsers reach it, if not at the port; docs/operating.md has the rest.`;

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
      if (!stopping) say('\nStopping …');
      void stop(0);
    });
  await needNpmPackages();
  await checkEnvironment();
  const given = process.env['DATABASE_URL'];
  const database = given
    ? { url: given, owner: process.env['MIGRATION_URL'] ?? given }
    : await ownDatabase(values.fresh === true);
  await build();
  say('Preparing the database …');
  const { first, demo } = await setUpDatabase(database, { empty: values.empty === true });
  const port = await freePort(wanted);
  if (wanted !== 0 && port !== wanted) say(`Port ${wanted} is taken; using ${port}.`);
  const address = await keepServing(database.url, port);
  toStop.push(keepIndexes(database.owner));
  say('');
  say(`  Studio        ${address}/studio`);
  if (demo) {
    say(`  Application   ${address}/live/larkfield`);
    say('');
    say(`  Sign in to the studio as ${demo.email}, password ${demo.password}`);
    say(
      '  Everybody in the demo has the same password, for example priya.raman@larkfield.example (Registrar).',
    );
  } else if (first) {
    say('');
    say(`  Sign in as ${first.email}, password ${first.password}`);
    say('  This password is not shown again.');
  }
  say('');
  say(`Ctrl-C ends it. The data stays in ${DATA}.`);
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
      say(`The server has ended ${MOST_ENDS} times in a minute. What it said is in ${DATA}/server.log`);
      return stop(1);
    }
    say('The server has ended by itself; starting it again …');
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
    say('Deleting all data …');
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
      `The data folder ${DATA} cannot be read and written. Mend its rights, or name another in ZINC_GATE_DATA.`,
    );
  }
}

/** Ends what a killed start left behind; refuses to run twice. */
async function clearUp() {
  const { start, server, address } = readState();
  if (isOurs(start, 'start.mjs') && start !== process.pid)
    throw new Unable(`Zinc Gate is running already: ${address ?? 'it is still starting'}.`);
  if (server !== undefined && isOurs(server, 'front/main.mjs')) await endProcess(server, 'SIGTERM');
}

main().catch((error) => {
  if (stopping) return;
  console.error(error instanceof Unable ? `\n${error.message}` : `\nIt failed: ${error?.message ?? error}`);
  if (started) void stop(1);
  else process.exit(1);
});
