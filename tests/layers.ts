import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative, resolve, dirname } from 'node:path';

/**
 * Holds the layers: the core imports nothing but itself and Yup; the demo and the contract only the core; ui
 * only the contract and the core; server the contract, the core and the demo; the command line what the server may. And no files and no
 * folders import each other in a circle, not for types either; routes leave to the workers what grows; and the sweep shares no code with what it tests. Prints what breaks this, and fails.
 */
const ROOT = resolve(import.meta.dirname, '..', 'src');

const MAY: Readonly<
  Record<string, { readonly layers: readonly string[]; readonly packages: 'any' | readonly string[] }>
> = {
  core: { layers: ['core'], packages: ['yup'] },
  demo: { layers: ['demo', 'core'], packages: [] },
  contract: { layers: ['contract', 'core'], packages: ['yup'] },
  ui: { layers: ['ui', 'contract', 'core'], packages: 'any' },
  server: { layers: ['server', 'contract', 'core', 'demo'], packages: 'any' },
  cli: { layers: ['cli', 'server', 'contract', 'core'], packages: 'any' },
  app: { layers: ['app', 'ui', 'server', 'contract', 'core', 'demo'], packages: 'any' },
};

function* files(folder: string): Generator<string> {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* files(path);
    else if (/\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name)) yield path;
  }
}

/** What a file imports, types too: packages by their names, files of ours by their paths. */
function* importsOf(file: string): Generator<{ readonly from: string; readonly path?: string }> {
  for (const [, from = ''] of readFileSync(file, 'utf8').matchAll(
    /(?:\bfrom\s+|\bimport\s*\(?\s*)['"]([^'"]+)['"]/g,
  )) {
    if (from.startsWith('@/')) yield { from, path: join(ROOT, from.slice(2)) };
    else if (from.startsWith('.')) yield { from, path: resolve(dirname(file), from) };
    else yield { from };
  }
}

const fileAt = (path: string): string | undefined =>
  ['', '.ts', '.tsx', '/index.ts']
    .map((end) => path + end)
    .find((one) => existsSync(one) && statSync(one).isFile());

/** The circles between files: each as the files that one goes through (Tarjan's strongly connected components). */
function circles(all: readonly string[]): string[][] {
  const [at, low, open, found] = [
    new Map<string, number>(),
    new Map<string, number>(),
    [] as string[],
    [] as string[][],
  ];
  const visit = (file: string): void => {
    at.set(file, at.size);
    low.set(file, at.get(file) as number);
    open.push(file);
    for (const { path } of importsOf(file)) {
      const next = path && fileAt(path);
      if (!next) continue;
      if (!at.has(next)) visit(next);
      if (open.includes(next)) low.set(file, Math.min(low.get(file) as number, low.get(next) as number));
    }
    if (low.get(file) !== at.get(file)) return;
    const circle = open.splice(open.indexOf(file));
    if (circle.length > 1) found.push(circle);
  };
  for (const file of all) if (!at.has(file)) visit(file);
  return found;
}

const wrong: string[] = [];

/** The document holds conditions, and these ask of the document: the one circle between folders that is meant to be. */
const MEANT = new Set(['core/model core/condition']);

/** Folders that import each other, those within each other apart: neither could be read, or moved, without the other. */
function* foldersInCircles(all: readonly string[]): Generator<string> {
  const folderOf = (file: string): string => relative(ROOT, dirname(file));
  const apart = (a: string, b: string): boolean =>
    !`${a}/`.startsWith(`${b}/`) && !`${b}/`.startsWith(`${a}/`);
  const imports = new Map<string, string>();
  for (const file of all)
    for (const { path } of importsOf(file)) {
      const [from, to] = [folderOf(file), path && fileAt(path)];
      if (to && apart(from, folderOf(to))) imports.set(`${from} ${folderOf(to)}`, relative(ROOT, file));
    }
  for (const [pair, file] of imports) {
    const back = imports.get(pair.split(' ').reverse().join(' '));
    if (
      back !== undefined &&
      file < back &&
      !MEANT.has(pair) &&
      !MEANT.has(pair.split(' ').reverse().join(' '))
    )
      yield `${pair.replace(' ', ' and ')} import each other: ${file}, ${back}`;
  }
}

for (const [layer, may] of Object.entries(MAY))
  for (const file of files(join(ROOT, layer)))
    for (const { from, path } of importsOf(file)) {
      const target = path && relative(ROOT, path).split('/')[0];
      const allowed = path
        ? may.layers.includes(target ?? '')
        : may.packages === 'any' || may.packages.includes(from);
      if (!allowed) wrong.push(`${relative(ROOT, file)} must not import ${from}`);
    }
/**
 * Nothing whose cost grows with the size of an application, a file or a body runs on the server's thread: what the jobs
 * are made of is not called by routes and pages.
 */
const ofJobs = new Set(
  [
    ...readFileSync(join(ROOT, 'server/work/jobs.ts'), 'utf8').matchAll(
      /const \{ ([^}]*) \} = await import/g,
    ),
  ].flatMap(([, names = '']) => names.split(/,\s*/)),
);
if (ofJobs.size === 0) wrong.push('No job is known: look at how server/work/jobs.ts loads them');
for (const file of files(join(ROOT, 'app')))
  for (const [, names = '', from = ''] of readFileSync(file, 'utf8').matchAll(
    /import \{([^}]*)\} from '(@\/server\/[^']*)'/g,
  ))
    for (const name of names.split(/[\s,]+/).filter(Boolean))
      if (ofJobs.has(name) && from !== '@/server/work/run')
        wrong.push(`${relative(ROOT, file)} must not call ${name} itself: a worker does it (server/work)`);

/**
 * The sweep shares nothing with what it tests: of the server it only reads what is to be swept, and opens sessions.
 */
const SWEEPS_MAY =
  /^server\/(proving|releases|config|database|drafts|log|notifications|security|people\/read|http\/problem)\b/;
for (const file of files(join(ROOT, 'server/proving/sweep')))
  for (const { from, path } of importsOf(file))
    if (path && relative(ROOT, path).startsWith('server/') && !SWEEPS_MAY.test(relative(ROOT, path)))
      wrong.push(`${relative(ROOT, file)} must not share ${from} with what it sweeps`);

for (const circle of circles([...files(ROOT)]))
  wrong.push(`These import each other: ${circle.map((file) => relative(ROOT, file)).join(', ')}`);

wrong.push(...foldersInCircles([...files(ROOT)]));

for (const line of wrong) console.error(line);
console.log(
  wrong.length === 0 ? 'The layers hold, and there are no circles.' : `${wrong.length} imports are wrong.`,
);
process.exitCode = wrong.length === 0 ? 0 : 1;
