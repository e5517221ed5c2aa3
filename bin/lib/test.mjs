import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { Cluster, freePort } from './cluster.mjs';
import { readOptions } from './options.mjs';
import { needChromium, needNpmPackages } from './packages.mjs';
import { inPackages, ROOT, run, say, Unable } from './run.mjs';
import { build, serve, setUpDatabase } from './server.mjs';

const HELP = `bin/test [--checks]

Installs what is missing and runs every test: the core's, the server's on a PostgreSQL of their own, and
the interface's in Chromium against a server in production mode. Ends with one line that counts them.

  --checks   lint, types, layers and format as well, each counted as one test`;

const RESULTS = `${ROOT}/.data/test-results`;
let passed = 0;
let failed = 0;

/** Counts one thing that either holds or not. @param {string} name @param {boolean} holds */
function count(name, holds) {
  say(`${holds ? 'ok' : 'FAILED'}: ${name}`);
  if (holds) passed++;
  else failed++;
}

/** @param {string} name @param {string} program @param {string[]} args @param {Record<string, string>} [env] */
function check(name, program, args, env = {}) {
  const { status } = run(process.execPath, [inPackages(program), ...args], { allowFailure: true, env });
  count(name, status === 0);
}

function checks() {
  check('lint', 'eslint/bin/eslint.js', ['.']);
  run(process.execPath, [inPackages('next/dist/bin/next'), 'typegen'], { quiet: true, allowFailure: true });
  check('types', 'typescript/bin/tsc', ['--noEmit']);
  check('layers', 'tsx/dist/cli.mjs', ['tests/layers.ts']);
  check('format', 'prettier/bin/prettier.cjs', ['--check', '--log-level=warn', '.']);
}

/** @param {string} url */
function unitAndServer(url) {
  const file = `${RESULTS}/vitest.json`;
  const { status } = run(
    process.execPath,
    [
      inPackages('vitest/vitest.mjs'),
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${file}`,
    ],
    { env: { DATABASE_URL: url }, allowFailure: true },
  );
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(file, 'utf8'));
  passed += numPassedTests;
  failed += numFailedTests;
  if (status !== 0 && numFailedTests === 0) count('the unit tests ran to their end', false);
}

/** @param {string} address @param {string} url @param {string} password */
function browser(address, url, password) {
  const file = `${RESULTS}/playwright.json`;
  const { status } = run(process.execPath, [inPackages('@playwright/test/cli.js'), 'test'], {
    env: { BASE_URL: address, DATABASE_URL: url, DEMO_PASSWORD: password, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
    allowFailure: true,
  });
  const { expected, unexpected, flaky } = JSON.parse(readFileSync(file, 'utf8')).stats;
  passed += expected;
  failed += unexpected + flaky;
  if (status !== 0 && unexpected + flaky === 0) count('the browser tests ran to their end', false);
}

async function main() {
  const { values } = readOptions('bin/test', {
    checks: { type: 'boolean', default: false },
    help: { type: 'boolean', default: false },
  });
  if (values.help) return say(HELP);
  await needNpmPackages();
  needChromium();
  rmSync(RESULTS, { recursive: true, force: true });
  mkdirSync(RESULTS, { recursive: true });
  if (values.checks) checks();
  const cluster = new Cluster('test-postgres');
  /** @type {(() => Promise<void>)[]} */
  const toStop = [() => cluster.stop()];
  const stop = async () => {
    for (const one of toStop.splice(0).reverse()) await one();
  };
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
    process.on(signal, () => void stop().then(() => process.exit(130)));
  try {
    await cluster.start();
    await build();
    unitAndServer(cluster.database('zinc_unit', { anew: true }).owner);
    const database = cluster.database('zinc_browser', { anew: true });
    const { demo } = await setUpDatabase(database);
    const { address, stop: stopServer } = await serve(database.url, await freePort());
    toStop.push(stopServer);
    browser(address, database.owner, demo?.password ?? '');
    const { backedUp, frozen } = await import('../../tests/crash/frozen.mjs');
    for (const [name, holds] of [...(await frozen(cluster)), await backedUp()]) count(name, holds);
    const { endedWhileBuilding, starting } = await import('../../tests/crash/starting.mjs');
    for (const [name, holds] of await starting()) count(name, holds);
    const { crash } = await import('../../tests/crash/crash.mjs');
    const missing = await crash(cluster);
    for (const one of missing.slice(0, 5)) say(one);
    count('after SIGKILL of server and PostgreSQL every acknowledged edit is there', missing.length === 0);
    count(...(await endedWhileBuilding()));
  } finally {
    await stop();
  }
  say(`\n${passed} passed, ${failed} failed`);
  process.exit(failed > 0 || passed === 0 ? 1 : 0);
}

main().catch((error) => {
  console.error(error instanceof Unable ? `\n${error.message}` : error);
  say(`\n${passed} passed, ${failed + 1} failed`);
  process.exit(1);
});
