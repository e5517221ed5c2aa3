import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

const FILES = ['plots.csv', 'inspections.csv'];

/** The made-up files that come with Zinc Gate, to make an application from: an association's plots, and inspections of them. */
export const sheetsToTry = (): Promise<{ readonly name: string; readonly text: string }[]> =>
  Promise.all(
    FILES.map(async (name) => ({
      name,
      text: await readFile(/* turbopackIgnore: true */ join(process.cwd(), 'demo', name), 'utf8'),
    })),
  );
