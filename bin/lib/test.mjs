import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { Cluster } from './cluster.mjs';
import { readOptions } from './options.mjs';
import { needChromium, needNpmPackages } from './packages.mjs';
import { endProcess, endWaitedFor, inPackages, RESULTS, run, runLong, say, Unable } from './run.mjs';
import { build, setUpDatabase } from './server.mjs';

const HELP = `bin/test [--checks] [unit | server | browser | crash] [WORDS]

Installs missing packages and runs the tests, or one kind of them: tests without external services (unit), tests with their own PostgreSQL (server), interface tests in Chromium against a production server (browser), and failure tests (crash). With WORDS, runs only tests whose file name (browser: whose title) contains them. The last line shows the totals.

  --checks     also check lint, types, layers, unused code and format (each counts as one test), and run all random tests
  --all-runs   run random tests as often as CI does (five times as often)`;

const KINDS = /** @type {const} */ (['unit', 'server', 'browser', 'crash']);
/** @typedef {(typeof KINDS)[number]} Kind */

/** Characters of a page that are told of a test that failed on it. */
const MOST_OF_A_PAGE = 3000;

let passed = 0;
/** How long each kind of tests took, in seconds. @type {string[]} */
const took = [];

/** @param {string} kind @param {() => unknown} tests */
async function timed(kind, tests) {
  const began = performance.now();
  await tests();
  took.push(`${kind} ${Math.round((performance.now() - began) / 1000)} s`);
}

/** How long each test took, in milliseconds. @type {{ name: string, ms: number }[]} */
const durations = [];

/** What failed, by name and with its message: told again at the end, where the output is often cut. @type {string[]} */
const failures = [];

/** Counts one thing that either holds or not. @param {string} name @param {boolean} holds @param {string} why what it said if not */
function count(name, holds, why = '') {
  say(`${holds ? 'ok' : 'FAILED'}: ${name}`);
  if (holds) passed++;
  else failures.push(`${name}\n${why}`.trim());
}

/** @param {string} name @param {string} program @param {string[]} args */
async function check(name, program, args) {
  const { status, output, said } = await runLong(process.execPath, [inPackages(program), ...args], {
    allowFailure: true,
  });
  count(name, status === 0, `${output}\n${said}`);
}

/** Lint takes as long as the rest together: they run side by side. */
async function checks() {
  run(process.execPath, [inPackages('next/dist/bin/next'), 'typegen'], { quiet: true, allowFailure: true });
  const lint = check('lint', 'eslint/bin/eslint.js', ['.']);
  await check('types', 'typescript/bin/tsc', ['--noEmit']);
  await check('layers', 'tsx/dist/cli.mjs', ['tests/layers.ts']);
  await check('no unused code', 'knip/bin/knip.js', []);
  await check('format', 'prettier/bin/prettier.cjs', ['--check', '--log-level=warn', '.']);
  await lint;
}

/** @param {'unit' | 'server'} project @param {string[]} words @param {Record<string, string>} env */
function vitest(project, words, env) {
  const file = `${RESULTS}/${project}.json`;
  const { status } = run(
    process.execPath,
    [
      inPackages('vitest/vitest.mjs'),
      'run',
      `--project=${project}`,
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${file}`,
      ...words,
    ],
    { env, allowFailure: true },
  );
  const { numPassedTests, numFailedTests, testResults } = JSON.parse(readFileSync(file, 'utf8'));
  passed += numPassedTests;
  for (const { assertionResults } of testResults)
    for (const { status: how, fullName, failureMessages, duration = 0 } of assertionResults) {
      durations.push({ name: `${project}: ${fullName}`, ms: duration });
      if (how === 'failed') failures.push(`${fullName}\n${failureMessages.join('\n')}`);
    }
  if (status !== 0 && numFailedTests === 0) count(`the ${project} tests completed`, false);
}

/** @typedef {{ duration: number, errors: { message?: string }[], attachments: { name: string, path?: string }[] }} Result */
/** @typedef {{ title: string, ok: boolean, tests: { results: Result[] }[] }} Spec */
/** @typedef {{ suites?: Suite[], specs: Spec[] }} Suite */

/** What was on the page when a test failed, as far as a log can hold it. @param {Result} result */
const pageAt = ({ attachments }) =>
  attachments
    .filter(({ name, path }) => name === 'error-context' && path !== undefined && existsSync(path))
    .map(({ path = '' }) => /```yaml\n(.*?)```/s.exec(readFileSync(path, 'utf8'))?.[1] ?? '')
    .map((page) => page.slice(Math.max(page.indexOf('- main'), 0)).slice(0, MOST_OF_A_PAGE))
    .map((page) => `Page content:\n${page}`);

/** The tests of a suite, and of the suites in it, that did not pass, with their messages. @param {Suite} suite @returns {string[]} */
const failedIn = ({ suites = [], specs }) => [
  ...suites.flatMap(failedIn),
  ...specs
    .filter(({ ok }) => !ok)
    .map(({ title, tests }) =>
      [
        title,
        ...tests.flatMap(({ results }) =>
          results.flatMap((one) => [...one.errors.map(({ message = '' }) => message), ...pageAt(one)]),
        ),
      ].join('\n'),
    ),
];

/** Notes how long the tests of a suite took, and of the suites in it. @param {Suite} suite */
function noteDurations({ suites = [], specs }) {
  suites.forEach(noteDurations);
  for (const { title, tests } of specs)
    durations.push({
      name: `browser: ${title}`,
      ms: tests.flatMap(({ results }) => results).reduce((sum, one) => sum + one.duration, 0),
    });
}

/**
 * Each file of them begins a server of its own, on a copy of this database.
 * @param {{ url: string, owner: string }} template @param {string} password @param {string[]} words @param {Record<string, string>} runs
 */
async function browser(template, password, words, runs) {
  const file = `${RESULTS}/playwright.json`;
  const only = words.length > 0 ? ['-g', words.join(' ')] : [];
  const { status } = run(process.execPath, [inPackages('@playwright/test/cli.js'), 'test', ...only], {
    env: {
      ...runs,
      TEMPLATE_URL: template.url,
      TEMPLATE_OWNER_URL: template.owner,
      DEMO_PASSWORD: password,
      PLAYWRIGHT_JSON_OUTPUT_NAME: file,
    },
    allowFailure: true,
  });
  // Servers that their tests could not end.
  const servers = `${RESULTS}/servers`;
  for (const pid of existsSync(servers) ? readdirSync(servers) : []) await endProcess(Number(pid), 'SIGTERM');
  const { stats, suites } = JSON.parse(readFileSync(file, 'utf8'));
  passed += stats.expected;
  suites.forEach(noteDurations);
  const missed = suites.flatMap(failedIn);
  failures.push(...missed);
  if (status !== 0 && missed.length === 0) count('the browser tests completed', false);
}

/** What breaks: the database that does not answer, a server that dies, a machine that is switched off. @param {Cluster} cluster */
async function crash(cluster) {
  const { backedUp, frozen } = await import('../../tests/crash/frozen.mjs');
  for (const [name, holds] of [...(await frozen(cluster)), await backedUp()]) count(name, holds);
  const { stayingUp } = await import('../../tests/crash/staying-up.mjs');
  for (const [name, holds] of await stayingUp(cluster)) count(name, holds);
  const { leaks } = await import('../../tests/crash/leaks.mjs');
  for (const [name, holds] of await leaks(cluster)) count(name, holds);
  const { endedWhileBuilding, starting } = await import('../../tests/crash/starting.mjs');
  for (const [name, holds] of await starting()) count(name, holds);
  const { crash: killed } = await import('../../tests/crash/crash.mjs');
  const missing = await killed(cluster);
  for (const one of missing.slice(0, 5)) say(one);
  count('every acknowledged edit survives SIGKILL of the server and PostgreSQL', missing.length === 0);
  count(...(await endedWhileBuilding()));
}

/** Which kinds are asked for, and by which words. @param {string[]} asked @returns {{ kinds: readonly Kind[], words: string[] }} */
function readKinds([first, ...words]) {
  if (first === undefined) return { kinds: KINDS, words };
  const kind = KINDS.find((one) => one === first);
  if (!kind) throw new Unable(`Unknown kind of test “${first}”. Use one of: ${KINDS.join(', ')}.`);
  return { kinds: [kind], words };
}

async function main() {
  const { values, positionals } = readOptions(
    'bin/test',
    {
      checks: { type: 'boolean', default: false },
      'all-runs': { type: 'boolean', default: false },
      help: { type: 'boolean', default: false },
    },
    { positionals: true },
  );
  if (values.help) {
    say(HELP);
    process.exit(0);
  }
  const { kinds, words } = readKinds(positionals);
  const all = values.checks || values['all-runs'];
  /** @type {Record<string, string>} */
  const runs = all ? { ALL_RUNS: 'yes' } : {};
  await needNpmPackages();
  if (kinds.includes('browser')) needChromium();
  rmSync(RESULTS, { recursive: true, force: true });
  mkdirSync(RESULTS, { recursive: true });
  if (!all) say('Random tests: one fifth of the runs that CI makes. Use --all-runs for all of them.');
  /** @type {(() => Promise<void>)[]} */
  const toStop = [];
  const stop = async () => {
    for (const one of toStop.splice(0).reverse()) await one();
  };
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
    process.on(signal, () => {
      endWaitedFor();
      void stop().then(() => process.exit(130));
    });
  if (values.checks) await timed('checks', checks);
  if (kinds.includes('unit')) await timed('unit', () => vitest('unit', words, runs));
  try {
    if (kinds.every((one) => one === 'unit')) return;
    const cluster = new Cluster('test-postgres');
    toStop.push(() => cluster.stop());
    await cluster.start();
    if (kinds.includes('server')) {
      // One for each of the two files that run at a time: tests/server/own-database.ts takes its worker's.
      const [first] = ['zinc_unit_1', 'zinc_unit_2'].map((name) => cluster.database(name, { anew: true }));
      await timed('server', () => vitest('server', words, { ...runs, DATABASE_URL: first?.owner ?? '' }));
    }
    if (kinds.includes('browser') || kinds.includes('crash')) await timed('build', build);
    if (kinds.includes('browser')) {
      const database = cluster.database('zinc_browser', { anew: true });
      const { demo } = await setUpDatabase(database);
      await timed('browser', () => browser(database, demo?.password ?? '', words, runs));
    }
    if (kinds.includes('crash')) await timed('crash', () => crash(cluster));
  } finally {
    await stop();
  }
}

const SLOWEST = 20;

/** What took longest, what failed, and the last line, whatever happened. */
function end() {
  const slowest = durations.sort((one, other) => other.ms - one.ms).slice(0, SLOWEST);
  if (slowest.length > 1) say('\nThe slowest tests:');
  for (const { name, ms } of slowest) say(`${(ms / 1000).toFixed(1).padStart(6)} s  ${name}`);
  for (const one of failures) say(`\nFAILED: ${one.slice(0, 2000)}`);
  if (took.length > 0) say(`\nTook: ${took.join(', ')}`);
  say(`\n${passed} passed, ${failures.length} failed`);
  process.exit(failures.length > 0 || passed === 0 ? 1 : 0);
}

main()
  .catch((error) => {
    console.error(error instanceof Unable ? `\n${error.message}` : error);
    failures.push('the tests completed');
  })
  .then(end);
