import * as yup from 'yup';
import type { Sheet } from '@/core/making';
import { exactly, listOf, shapeFaults } from '@/core/model';
import { Refused } from '../http/problem';
import { sheetsFrom } from './postgres';
import { readSheet } from './read-sheet';

const MOST_FILES = 20;

const postgres = exactly({
  url: yup.string().max(2000).required(),
  tables: listOf(
    exactly({ schema: yup.string().max(100).required(), name: yup.string().max(100).required() }),
    100,
  ),
});

/**
 * The files of a form as sheets, in their order; one that cannot be read is refused with its line. Or the tables of
 * another database, where the form names it (`postgres`).
 */
export async function sheetsIn(form: FormData, signal?: AbortSignal): Promise<Sheet[]> {
  const other = saidIn(form, 'postgres', postgres);
  if (other) return sheetsFrom(other.url, other.tables, { signal });
  const files = form.getAll('files').filter((one): one is File => one instanceof File);
  if (files.length === 0) throw new Refused(422, 'files', 'Choose a CSV file first.');
  if (files.length > MOST_FILES)
    throw new Refused(422, 'files', `You can import at most ${MOST_FILES} files at a time. Remove some.`);
  const sheets: Sheet[] = [];
  for (const file of files)
    sheets.push(await readSheet(file.name, new Uint8Array(await file.arrayBuffer()), signal));
  return sheets;
}

/** What a form says as JSON under that name, checked; undefined where it says nothing. */
export function saidIn<T>(form: FormData, name: string, schema: yup.ISchema<T>): T | undefined {
  const text = form.get(name);
  if (typeof text !== 'string') return undefined;
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw new Refused(400, 'not-json', `The description of the files (${name}) is not valid JSON.`);
  }
  const problems = shapeFaults(schema, said, { values: 50_000 });
  if (problems.length > 0) {
    const [first] = problems;
    throw new Refused(422, 'shape', `${first?.place}: ${first?.message}.`, { problems });
  }
  return said as T;
}
