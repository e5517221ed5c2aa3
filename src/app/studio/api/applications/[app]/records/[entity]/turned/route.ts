import { dataAt } from '@/server/data/at';
import { turnedBy } from '@/server/data/turned';
import { handle, json, readBody } from '@/server/http/handle';
import { typeSchema } from '@/core/model';
import * as yup from 'yup';

type Params = { params: Promise<{ app: string; entity: string }> };

const body = yup.object({ field: yup.string().max(60).required(), type: typeSchema }).noUnknown();

/** What would become of the records if a field held another type. Nothing is changed. */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const at = await dataAt(request, app, entity, 'read');
  const { field, type } = await readBody(request, body);
  return json({ changes: await turnedBy(at, field, type) });
});
