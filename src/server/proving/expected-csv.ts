import { parse } from 'csv-parse/sync';
import { levelsText, readLevels } from '@/core/expectations';
import { isMoment } from '@/core/model';
import type { NewExpectation } from '@/contract/schemas/proving';
import { plainCell, toCsv } from '../csv';
import { Refused } from '../http/problem';
import { addExpectations, listExpectations } from './expectations';

/** The columns of `zinc decide`, with what an expectation is called and why it is there. */
const COLUMNS = ['viewer', 'element', 'record', 'at', 'expect', 'name', 'reason'] as const;
type Row = Readonly<Record<(typeof COLUMNS)[number], string>>;
const NEEDED: readonly string[] = ['viewer', 'element', 'expect'];
/** What `zinc decide` answers may stay in the file. */
const PASSED_OVER: readonly string[] = ['as_expected', 'least', 'most', 'decided_by', 'problem'];

/** All expectations as CSV (RFC 4180). */
export async function exportExpectations(applicationId: string): Promise<string> {
  const all = await listExpectations(applicationId);
  return toCsv([
    [...COLUMNS],
    ...all.map(({ viewer, element, record, moment, expect, name, reason }) => [
      viewer,
      element,
      record ? `${record.entity}:${record.id}` : '',
      moment === undefined ? '' : new Date(moment).toISOString(),
      levelsText(expect),
      name,
      reason,
    ]),
  ]);
}

/** Adds the expectations of a CSV file, all or none. Returns how many. */
export async function importExpectations(
  applicationId: string,
  builderId: string,
  text: string,
): Promise<number> {
  const rows = readRows(text);
  const wanted = rows.map(({ row, line }): NewExpectation => {
    const fault = (message: string): Refused =>
      new Refused(422, 'csv', `Nothing was added. Line ${line}: ${message}`);
    if (!readLevels(row.expect))
      throw fault(`“${row.expect}” is not a level. Use none, see or edit, or a range such as see..edit.`);
    if (row.at && !isMoment(row.at))
      throw fault(
        `“${row.at}” is not a valid date and time. Write it like 2026-03-14T09:30:00Z, or leave it empty.`,
      );
    const [entity = '', id = ''] = row.record.split(/:(.*)/s);
    if (row.record && (!entity || !id))
      throw fault(`“${row.record}” is not a valid record. Write it as entity:ID, or leave it empty.`);
    return {
      name: row.name || 'Imported from a file',
      reason: row.reason,
      of: [
        {
          viewer: row.viewer,
          element: row.element,
          record: row.record ? { entity, id } : undefined,
          moment: row.at ? Date.parse(row.at) : undefined,
          expect: row.expect,
        },
      ],
    };
  });
  return addExpectations(applicationId, builderId, wanted);
}

function readRows(text: string): { readonly row: Row; readonly line: number }[] {
  let read: { record: Record<string, string>; info: { lines: number } }[];
  try {
    read = parse(text, {
      columns: checkHeader,
      info: true,
      bom: true,
      skip_empty_lines: true,
      trim: true,
      cast: plainCell,
    });
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused(422, 'csv', `Nothing was added. ${(error as Error).message}`);
  }
  if (read.length === 0)
    throw new Refused(422, 'csv', 'Nothing was added, because there are no lines below the header.');
  return read.map(({ record, info }) => ({
    row: Object.fromEntries(COLUMNS.map((one) => [one, record[one] ?? ''])) as Row,
    line: info.lines,
  }));
}

function checkHeader(header: string[]): string[] {
  const names = header.map((one) => one.trim());
  const unknown = names.filter((one) => ![...COLUMNS, ...PASSED_OVER].includes(one));
  const missing = NEEDED.filter((one) => !names.includes(one));
  if (missing.length > 0 || unknown.length > 0)
    throw new Refused(
      422,
      'csv',
      `Nothing was added. Line 1: ${missing.length > 0 ? `the column ${missing.join(', ')} is missing` : `there is no column ${unknown.slice(0, 5).join(', ')}`}. The columns are ${COLUMNS.join(', ')}.`,
    );
  return names;
}
