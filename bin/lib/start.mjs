import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { Cluster, freePort } from './cluster.mjs';
import { needNpmPackages } from './packages.mjs';
import { DATA, endProcess, isAlive, say, Unable } from './run.mjs';
import { build, serve, setUpDatabase } from './server.mjs';

const HELP = `bin/start [--fresh] [--empty] [--port N]

Installs what is missing, starts PostgreSQL with its data in .data/, loads the demo the first time,
builds if the sources changed, and serves on 127.0.0.1. Ctrl-C ends it; the data stays.

  --fresh    delete all data first, and start over
  --empty    in a new database: no demo, one builder with a random password that is shown once
  --port N   the port to serve on (4620; another one if it is taken)

DATABASE_URL, where it is set, names a PostgreSQL to use instead; ZINC_GATE_DATA another folder than .data/.`;

const { values } = parseArgs({
  options: {
    fresh: { type: 'boolean', default: false },
    empty: { type: 'boolean', default: false },
    port: { type: 'string', default: process.env['PORT'] ?? '4620' },
    help: { type: 'boolean', default: false },
  },
});

/** What is running, so that the next start can find it if this one is killed. */
const STATE = `${DATA}/running.json`;

/** @type {(() => Promise<void>)[]} */
const toStop = [];
let stopping = false;
let started = false;

/** Ends what was started, the last first. @param {number} code */
async function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const one of toStop.reverse()) await one();
  rmSync(STATE, { force: true });
  process.exit(code);
}

async function main() {
  if (values.help) return say(HELP);
  mkdirSync(DATA, { recursive: true });
  await clearUp();
  started = true;
  writeFileSync(STATE, JSON.stringify({ start: process.pid }));
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
    process.on(signal, () => {
      if (!stopping) say('\nStopping …');
      void stop(0);
    });
  needNpmPackages();
  const url = process.env['DATABASE_URL'] ?? (await ownDatabase());
  build();
  say('Preparing the database …');
  const { first, demo } = setUpDatabase(url, { empty: values.empty });
  const wanted = Number(values.port);
  const port = await freePort(wanted);
  if (port !== wanted) say(`Port ${wanted} is taken; using ${port}.`);
  const { child, address, stop: stopServer } = await serve(url, port);
  toStop.push(stopServer);
  writeFileSync(STATE, JSON.stringify({ start: process.pid, server: child.pid, address }));
  child.on('exit', () => {
    if (!stopping) say('The server ended by itself.');
    void stop(1);
  });
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

async function ownDatabase() {
  const cluster = new Cluster('postgres');
  if (values.fresh) {
    say('Deleting all data …');
    if (cluster.adopt()) await cluster.stop();
    cluster.remove();
  }
  toStop.push(() => cluster.stop());
  await cluster.start();
  return cluster.database('zinc_gate');
}

/** Ends what a killed start left behind; refuses to run twice. */
async function clearUp() {
  if (!existsSync(STATE)) return;
  const { start, server, address } = JSON.parse(readFileSync(STATE, 'utf8'));
  if (isOurs(start, 'start.mjs'))
    throw new Unable(`Zinc Gate is running already: ${address ?? 'it is still starting'}.`);
  if (isOurs(server, 'next')) await endProcess(server, 'SIGTERM');
}

/** A process id may belong to somebody else by now: look at what it runs. @param {number | undefined} pid @param {string} program */
function isOurs(pid, program) {
  if (!pid || !isAlive(pid)) return false;
  const file = `/proc/${pid}/cmdline`;
  return existsSync(file) && readFileSync(file, 'utf8').includes(program);
}

main().catch((error) => {
  console.error(error instanceof Unable ? `\n${error.message}` : error);
  if (started) void stop(1);
  else process.exit(1);
});
