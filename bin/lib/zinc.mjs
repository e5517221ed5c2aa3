import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { Cluster } from './cluster.mjs';
import { needNpmPackages } from './packages.mjs';
import { inPackages, ROOT, Unable } from './run.mjs';

// What is told on the way must not come between the lines of an answer.
console.log = console.error;

const args = process.argv.slice(2);
/** These work on files alone. */
const ON_FILES = ['check', 'decide', 'test', 'explain', 'reach', 'help'];
const command = args.find((one) => !one.startsWith('-'));
const needsDatabase = command !== undefined && !ON_FILES.includes(command);

/** The application's own database, started for this command if it is not running. */
async function withDatabase() {
  if (!needsDatabase || args.includes('--help') || process.env['DATABASE_URL'])
    return { url: process.env['DATABASE_URL'], stop: async () => {} };
  const cluster = new Cluster('postgres');
  const wasRunning = cluster.adopt();
  if (!wasRunning) await cluster.start();
  return {
    url: cluster.database('zinc_gate').url,
    stop: async () => (wasRunning ? undefined : cluster.stop()),
  };
}

try {
  if (!existsSync(`${ROOT}/node_modules/tsx`)) await needNpmPackages();
  const { url, stop } = await withDatabase();
  const { status } = spawnSync(
    process.execPath,
    ['--import', pathToFileURL(inPackages('tsx/dist/loader.mjs')).href, `${ROOT}/src/cli/zinc.ts`, ...args],
    {
      stdio: 'inherit',
      env: { ...process.env, ...(url && { DATABASE_URL: url }), TSX_TSCONFIG_PATH: `${ROOT}/tsconfig.json` },
    },
  );
  await stop();
  process.exit(status ?? 2);
} catch (error) {
  console.error(error instanceof Unable ? error.message : error);
  process.exit(2);
}
