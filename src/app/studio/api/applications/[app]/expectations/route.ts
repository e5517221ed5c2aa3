import { LARGE, readBody, readJson } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { chosenSchema, listExpectations, removeExpectations } from '@/server/proving/expectations';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole, inWorker } from '@/server/work/run';

type Params = { params: Promise<{ app: string }> };

/** `GET …/expectations`: all of them. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json({ expectations: await listExpectations(applicationId) });
});

/** `POST …/expectations`: keeps some under a name; where no level is given, as it is in the draft now. */
export const POST = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const body = await readJson(request);
  return answerWhole(
    request,
    'add-expectations',
    { applicationId, builderId: builder.id, body },
    builder.id,
    201,
  );
});

/** `PATCH …/expectations {ids, reason}`: from now on what there is now is expected. */
export const PATCH = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const body = await readJson(request);
  const { signal } = request;
  await inWorker(
    'expect-what-is',
    { applicationId, builderId: builder.id, body },
    { owner: builder.id, signal },
  );
  return nothing();
});

/** `DELETE …/expectations {ids}`. */
export const DELETE = handle<Params>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'change');
  await removeExpectations(applicationId, (await readBody(request, chosenSchema, LARGE)).ids);
  return nothing();
});
