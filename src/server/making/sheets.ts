import * as yup from 'yup';
import { viewerKey } from '@/core';
import {
  applicationFrom,
  currencyIn,
  guessSheets,
  kindsSchema,
  lookAt,
  namesOf,
  sheetsSchema,
  titled,
} from '@/core/making';
import { exactly } from '@/core/model';
import { database } from '../database/client';
import { Refused } from '../http/problem';
import type { Run } from '../http/progress';
import type { Upload } from '@/contract/body';
import { partsOf } from '../http/upload';
import { firstRecords, makeApplication, requireFree } from './make';
import { saidIn, sheetsIn } from './sent-sheets';
import { today } from '../today';

const others = (): Refused =>
  new Refused(422, 'columns', 'The files have changed since they were checked. Choose them again.');

/**
 * What the columns of CSV files hold, by all their rows; with `kinds`, how they would be as those. Nothing is stored.
 */
export async function lookAtSheets(upload: Upload, signal?: AbortSignal) {
  const form = await partsOf(upload);
  const kinds = saidIn(form, 'kinds', kindsSchema);
  const sheets = await sheetsIn(form, signal);
  if (kinds && !sheets.every(({ columns }, s) => kinds[s]?.length === columns.length)) throw others();
  const columns = kinds
    ? sheets.map((sheet, s) =>
        sheet.columns.map((name, c) => {
          const as = kinds[s]?.[c] ?? { kind: 'left' };
          if (as.kind === 'points' && !sheets[as.sheet]?.columns[as.column])
            throw new Refused(422, 'kinds', `${name} refers to a column that does not exist.`);
          return lookAt(sheets, s, c, name, as, today());
        }),
      )
    : guessSheets(sheets, today());
  return {
    currency: currencyIn(columns),
    sheets: sheets.map(({ name, rows, columns: names }, s) => ({
      ...namesOf(name),
      rows: rows.length,
      columns: (columns[s] ?? []).map((one, c) => ({ ...one, title: titled(names[c] ?? '') || one.name })),
    })),
  };
}

const said = exactly({ slug: yup.string().max(200).required('is missing'), make: sheetsSchema });

/** Makes an application from CSV files or tables, and tells how far it is: all of it, or nothing. */
export async function makeFromSheets(
  builderId: string,
  upload: Upload,
  { tell, signal }: Run,
): Promise<{ readonly viewer: string | undefined }> {
  const form = await partsOf(upload);
  const asked = saidIn(form, 'make', said);
  if (!asked)
    throw new Refused(422, 'shape', 'Enter the name of the application and the type of each column.');
  const { slug, make } = asked;
  await requireFree(slug, database());
  const sheets = await sheetsIn(form, signal);
  const { sheets: choices, ...manners } = make;
  const fits =
    choices.length === sheets.length &&
    choices.every(
      ({ columns }, s) =>
        columns.length === sheets[s]?.columns.length &&
        columns.every(({ as }) => as.kind !== 'points' || sheets[as.sheet]?.columns[as.column] !== undefined),
    );
  if (!fits) throw others();
  const made = applicationFrom(manners, sheets, choices);
  const records = firstRecords(made, sheets, choices, today());
  const from = form.has('postgres') ? 'postgres' : 'csv';
  await makeApplication(builderId, { slug, definition: made.definition, records, from }, tell, signal);
  const [role] = made.definition.roles;
  return { viewer: role && viewerKey('role', role.id) };
}
