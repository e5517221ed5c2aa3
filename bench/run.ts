import { needNpmPackages } from '../bin/lib/packages.mjs';
import { measureConditions } from './conditions';
import { measureMatrix } from './matrix';
import { keep, printTable } from './measure';
import { measurePages } from './pages';
import { measureProving } from './proving';
import { measureResolving } from './resolving';
import { measureReviewing } from './reviewing';

/**
 * `npm run bench`: every measure in one run, as ratios, beside what they were at the last release; ends with 1 where
 * one is over its limit. With `--keep` they are kept as those of the release that is being made.
 */
await needNpmPackages();
const inCore = [
  ...measureResolving(),
  ...measureConditions(),
  ...measureMatrix(),
  ...measureProving(),
  ...measureReviewing(),
];
const { measures, spent } = await measurePages();
const all = [...inCore, ...measures];
printTable(all);
if (process.argv.includes('--keep')) keep(all);
console.table(spent);
const over = all.filter(({ ratio, most }) => most !== undefined && ratio > most);
for (const { name } of over) console.log(`Over its limit: ${name}`);
process.exit(over.length > 0 ? 1 : 0);
