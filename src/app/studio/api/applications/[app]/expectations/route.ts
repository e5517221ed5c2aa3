import * as yup from 'yup';
import { handle, json, LARGE, nothing, readBody } from '@/server/http/handle';
import {
  addExpectations,
  expectWhatIs,
  listExpectations,
  MOST_AT_ONCE,
  removeExpectations,
  wantedSchema,
} from '@/server/proving/expectations';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };

/** `GET …/expectations`: all of them. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json({ expectations: await listExpectations(applicationId) });
});

/** `POST …/expectations`: keeps some under a name; where no level is given, as it is in the draft now. */
export const POST = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const wanted = await readBody(request, wantedSchema, LARGE);
  return json({ added: await addExpectations(applicationId, builder.id, [wanted]) }, { status: 201 });
});

const ids = yup.array(yup.string().uuid().required()).min(1).max(MOST_AT_ONCE).required();
const change = yup.object({ ids, reason: yup.string().max(500) }).noUnknown();

/** `PATCH …/expectations {ids, reason}`: from now on what there is now is expected. */
export const PATCH = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const asked = await readBody(request, change, LARGE);
  await expectWhatIs(applicationId, builder.id, asked.ids, asked.reason);
  return nothing();
});

/** `DELETE …/expectations {ids}`. */
export const DELETE = handle<Params>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'change');
  await removeExpectations(
    applicationId,
    (await readBody(request, yup.object({ ids }).noUnknown(), LARGE)).ids,
  );
  return nothing();
});
