import * as yup from 'yup';
import { type Edit, editSchema } from '@/core/edit';
import { optional } from '@/core/model';
import { change, revisionsSince, undoStateIn } from '@/server/drafts/draft';
import { handle, json, LARGE, MOST_NUMBER, readBody } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

/** `GET …/draft?since=REVISION`: what has come since. */
export const GET = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  const since = Number(new URL(request.url).searchParams.get('since'));
  if (!Number.isInteger(since) || since < 0 || since > MOST_NUMBER)
    throw new Refused(422, 'query', 'since must be a revision.');
  return json({
    since: await revisionsSince(applicationId, since),
    standing: await undoStateIn(applicationId, builder.id),
  });
});

const body = yup
  .object({
    base: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    ask: yup.string().oneOf(['edit', 'undo', 'redo']).required(),
    edit: optional(editSchema),
    request: yup.string().uuid(),
    confirmed: yup.string().max(40),
  })
  .noUnknown();

/** `POST …/draft`: make an edit, undo, or redo. Answers when it is stored, with all that came since `base`. Sent again
 * under the same `request` it is not done again. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const { base, ask, edit, ...manner } = await readBody(request, body, LARGE);
  if (ask === 'edit' && edit === undefined) throw new Refused(422, 'shape', 'An edit is missing.');
  if (ask !== 'edit') return json(await change(applicationId, builder.id, base, ask, manner));
  return json(await change(applicationId, builder.id, base, { edit: edit as Edit }, manner));
});
