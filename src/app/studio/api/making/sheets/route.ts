import * as yup from 'yup';
import { viewerKey } from '@/core';
import { applicationFrom, sheetsSchema } from '@/core/making';
import { exactly } from '@/core/model';
import { database } from '@/server/database/client';
import { handle } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { progressing } from '@/server/http/progress';
import { firstRecords, makeApplication, requireFree } from '@/server/making/make';
import { readForm, saidIn, sheetsIn, today } from '@/server/making/sent-sheets';
import { needBuilder } from '@/server/studio/builder';

const said = exactly({ slug: yup.string().max(200).required('is missing'), make: sheetsSchema });

/** `POST …/making/sheets`: makes an application from CSV files or tables, and tells how far it is: all of it, or nothing. */
export const POST = handle(async (request) => {
  const builder = await needBuilder();
  const form = await readForm(request);
  const asked = saidIn(form, 'make', said);
  if (!asked) throw new Refused(422, 'shape', 'Say how the application is called, and what the columns are.');
  const { slug, make } = asked;
  await requireFree(slug, database());
  const sheets = await sheetsIn(form, request.signal);
  const { sheets: choices, ...manners } = make;
  const fits =
    choices.length === sheets.length &&
    choices.every(
      ({ columns }, s) =>
        columns.length === sheets[s]?.columns.length &&
        columns.every(({ as }) => as.kind !== 'points' || sheets[as.sheet]?.columns[as.column] !== undefined),
    );
  if (!fits)
    throw new Refused(
      422,
      'columns',
      'The files are others than those that were looked at. Choose them anew.',
    );
  return progressing(async (tell, signal) => {
    const made = applicationFrom(manners, sheets, choices);
    const records = firstRecords(made, sheets, choices, today());
    await makeApplication(
      builder.id,
      { slug, definition: made.definition, records, from: form.has('postgres') ? 'postgres' : 'csv' },
      tell,
      signal,
    );
    const [role] = made.definition.roles;
    return { viewer: role && viewerKey('role', role.id) };
  });
});
