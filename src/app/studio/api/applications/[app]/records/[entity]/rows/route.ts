import * as yup from 'yup';
import { dataAt } from '@/server/data/at';
import { dataRows, distinctIn, filledIn, type Written, writtenSchema } from '@/server/data/rows';
import { addRow, changeRows, deleteRows } from '@/server/data/write';
import { exactly, listOf } from '@/core/model';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';

type Params = { params: Promise<{ app: string; entity: string }> };

/**
 * `GET …/rows?records=&q=&filter=&sort=&page=`: records as a table; with `filled`, how many have a value in each field; with
 * `distinct=FIELD`, the different values that stand there, where they are few.
 */
export const GET = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const at = await dataAt(request, app, entity, 'read');
  const { searchParams } = new URL(request.url);
  if (searchParams.has('filled')) return json(await filledIn(at));
  const distinct = searchParams.get('distinct');
  if (distinct !== null) return json({ values: (await distinctIn(at, distinct)) ?? null });
  return json(await dataRows(at, searchParams));
});

const valuesBody = yup.object({ values: writtenSchema }).noUnknown();

/** Adds a record. */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const at = await dataAt(request, app, entity, 'change');
  const { values } = await readBody(request, valuesBody);
  return json(await addRow(at, values), { status: 201 });
});

const records = listOf(
  exactly({ id: yup.string().max(60).required(), version: yup.number().integer().required() }),
  500,
);
const changeBody = yup.object({ records, values: writtenSchema }).noUnknown();

/** Gives records the same values in some fields, all of them or none. */
export const PATCH = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const at = await dataAt(request, app, entity, 'change');
  const { records: chosen, values } = (await readBody(request, changeBody)) as ChangeBody;
  await changeRows(at, chosen, values);
  return nothing();
});

/** Deletes records, all of them or none. */
export const DELETE = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const at = await dataAt(request, app, entity, 'change');
  const { records: chosen } = (await readBody(request, yup.object({ records }).noUnknown())) as Pick<
    ChangeBody,
    'records'
  >;
  await deleteRows(at, chosen);
  return nothing();
});

interface ChangeBody {
  readonly records: { id: string; version: number }[];
  readonly values: Written;
}
