import { createHash } from 'node:crypto';
import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { ROOT } from './run.mjs';

/** What the command line is made of. */
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

/**
 * The command line as JavaScript: made anew when its sources have changed, so that a call need not read TypeScript.
 * Returns the file to run.
 */
export async function bundled() {
  const folder = `${ROOT}/.data/cli`;
  const made = `${folder}/${stateOfSources()}`;
  if (!existsSync(made)) {
    const { build } = await import('esbuild');
    const making = `${made}.${process.pid}`;
    await build({
      entryPoints: [`${ROOT}/src/cli/zinc.ts`],
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
    for (const old of readdirSync(folder))
      if (old.length === 20) rmSync(`${folder}/${old}`, { recursive: true, force: true });
    try {
      renameSync(making, made);
    } catch {
      // Another call was quicker.
      rmSync(making, { recursive: true, force: true });
    }
  }
  return `${made}/zinc.mjs`;
}
