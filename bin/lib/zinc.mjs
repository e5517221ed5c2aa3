import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { bundled } from './bundle.mjs';
import { ROOT, Unable } from './run.mjs';

const { log } = console;
// What is told on the way must not come between the lines of an answer.
console.log = console.error;

const args = process.argv.slice(2);
/** These work on files alone. */
const ON_FILES = ['check', 'decide', 'test', 'explain', 'reach', 'help'];
const command = args.find((one) => !one.startsWith('-'));
const needsDatabase = command !== undefined && !ON_FILES.includes(command) && !args.includes('--help');

/** The application's own database, started for this command if it is not running. */
async function withDatabase() {
  if (process.env['DATABASE_URL']) return { url: process.env['DATABASE_URL'], stop: async () => {} };
  const { Cluster } = await import('./cluster.mjs');
  const cluster = new Cluster('postgres');
  const wasRunning = cluster.adopt();
  if (!wasRunning) await cluster.start();
  return {
    url: cluster.database('zinc_gate').url,
    stop: async () => (wasRunning ? undefined : cluster.stop()),
  };
}

try {
  if (!existsSync(`${ROOT}/node_modules/esbuild`)) await (await import('./packages.mjs')).needNpmPackages();
  const program = await bundled('cli/zinc');
  if (needsDatabase) {
    const { url, stop } = await withDatabase();
    const env = { ...process.env, DATABASE_URL: url };
    const { status } = spawnSync(process.execPath, [program, ...args], { stdio: 'inherit', env });
    await stop();
    process.exit(status ?? 2);
  }
  console.log = log;
  await import(pathToFileURL(program).href);
} catch (error) {
  console.error(error instanceof Unable ? error.message : error);
  process.exit(2);
}
