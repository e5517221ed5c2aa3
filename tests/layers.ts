import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative, resolve, dirname } from 'node:path';

/**
 * Holds the layers: the core imports nothing but itself and Yup; the demo only the core; ui only ui and
 * core; server only server, core and demo; the command line only server and core. Prints what breaks this, and fails.
 */
const ROOT = resolve(import.meta.dirname, '..', 'src');

const MAY: Readonly<
  Record<string, { readonly layers: readonly string[]; readonly packages: 'any' | readonly string[] }>
> = {
  core: { layers: ['core'], packages: ['yup'] },
  demo: { layers: ['demo', 'core'], packages: [] },
  ui: { layers: ['ui', 'core'], packages: 'any' },
  server: { layers: ['server', 'core', 'demo'], packages: 'any' },
  cli: { layers: ['cli', 'server', 'core'], packages: 'any' },
  app: { layers: ['app', 'ui', 'server', 'core', 'demo'], packages: 'any' },
};

function* files(folder: string): Generator<string> {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* files(path);
    else if (/\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name)) yield path;
  }
}

const wrong: string[] = [];
for (const [layer, may] of Object.entries(MAY))
  for (const file of files(join(ROOT, layer)))
    for (const [, from = ''] of readFileSync(file, 'utf8').matchAll(
      /(?:from|import)\s*\(?\s*['"]([^'"]+)['"]/g,
    )) {
      const path = from.startsWith('@/')
        ? join(ROOT, from.slice(2))
        : from.startsWith('.')
          ? resolve(dirname(file), from)
          : undefined;
      const target = path && relative(ROOT, path).split('/')[0];
      const allowed = path
        ? may.layers.includes(target ?? '')
        : may.packages === 'any' || may.packages.includes(from);
      if (!allowed) wrong.push(`${relative(ROOT, file)} must not import ${from}`);
    }

for (const line of wrong) console.error(line);
console.log(wrong.length === 0 ? 'The layers hold.' : `${wrong.length} imports break the layers.`);
process.exitCode = wrong.length === 0 ? 0 : 1;
