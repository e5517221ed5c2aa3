import { createHash } from 'node:crypto';
import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { ROOT, Unable } from './run.mjs';

/** What is run as JavaScript: by its path in `src`, without the ending. */
const PROGRAMS = [
  'cli/zinc',
  'server/setup',
  'server/index-keeper',
  'server/proving/prover',
  'server/proving/sweeper',
  'server/work/worker',
];

/** What they are made of. */
const SOURCES = ['cli', 'contract', 'core', 'demo', 'server'];

/** What tells the sources as they are now from others: their names, sizes and times. */
function stateOfSources() {
  const hash = createHash('sha256');
  for (const folder of SOURCES)
    for (const file of readdirSync(`${ROOT}/src/${folder}`, { recursive: true, encoding: 'utf8' }).sort()) {
      const { size, mtimeMs } = statSync(`${ROOT}/src/${folder}/${file}`);
      hash.update(`${folder}/${file} ${size} ${mtimeMs}\n`);
    }
  return hash.digest('hex').slice(0, 20);
}

/** Made by sources of before, they may still be run: so long they are kept, in milliseconds. */
const KEPT = 24 * 3_600_000;

/**
 * The programs as JavaScript: made anew when their sources have changed, so that a start need not read TypeScript.
 * Returns the file to run.
 * @param {string} program one of `PROGRAMS`
 */
export async function bundled(program) {
  if (!PROGRAMS.includes(program))
    throw new Unable(`Unknown program “${program}”. Use one of: ${PROGRAMS.join(', ')}.`);
  const folder = `${ROOT}/.data/programs`;
  const made = `${folder}/${stateOfSources()}`;
  if (!existsSync(made)) {
    const { build } = await import('esbuild');
    const making = `${made}.${process.pid}`;
    await build({
      entryPoints: PROGRAMS.map((one) => `${ROOT}/src/${one}.ts`),
      outbase: `${ROOT}/src`,
      outdir: making,
      outExtension: { '.js': '.mjs' },
      absWorkingDir: ROOT,
      bundle: true,
      splitting: true,
      packages: 'external',
      // Node asks for the ending.
      alias: { 'next/headers': 'next/headers.js' },
      platform: 'node',
      format: 'esm',
      target: 'node20',
      sourcemap: true,
      logLevel: 'error',
    });
    for (const old of readdirSync(folder).map((name) => `${folder}/${name}`)) {
      const { mtimeMs = Infinity } = statSync(old, { throwIfNoEntry: false }) ?? {};
      if (Date.now() - mtimeMs > KEPT) rmSync(old, { recursive: true, force: true });
    }
    try {
      renameSync(making, made);
    } catch {
      // Another process was quicker.
      rmSync(making, { recursive: true, force: true });
    }
  }
  return `${made}/${program}.mjs`;
}
