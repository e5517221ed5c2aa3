import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { listSweeps, startSweep, stopSweep } from '@/server/proving/sweep/sweeps';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };

/** `GET …/sweeps`: the newest sweeps, with what they found. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json({ sweeps: await listSweeps(applicationId) });
});

const body = yup
  .object({ released: yup.boolean().required(), whole: yup.boolean().default(false) })
  .noUnknown();

/** `POST …/sweeps {released, whole}`: asks for a sweep of the release in force, or of the draft; `whole`: nothing is left out. */
export const POST = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const of = await readBody(request, body);
  return json({ id: await startSweep(applicationId, builder.id, of) }, { status: 201 });
});

/** `DELETE …/sweeps`: stops the one that is under way. */
export const DELETE = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'change');
  await stopSweep(applicationId);
  return nothing();
});
