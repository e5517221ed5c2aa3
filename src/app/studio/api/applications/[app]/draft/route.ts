import * as yup from 'yup';
import { editSchema } from '@/core/edit/schema';
import type { Edit } from '@/core/edit/edit';
import { change, revisionsSince, standing } from '@/server/drafts/draft';
import { handle, json, readBody } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

/** `GET …/draft?since=REVISION`: what has come since. */
export const GET = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  const since = Number(new URL(request.url).searchParams.get('since'));
  if (!Number.isInteger(since) || since < 0) throw new Refused(422, 'query', 'since must be a revision.');
  return json({
    since: await revisionsSince(applicationId, since),
    standing: await standing(applicationId, builder.id),
  });
});

const body = yup
  .object({
    base: yup.number().integer().min(0).required(),
    ask: yup.string().oneOf(['edit', 'undo', 'redo']).required(),
    edit: yup.mixed<Edit>().when('ask', { is: 'edit', then: () => editSchema }),
  })
  .noUnknown();

/** `POST …/draft`: make an edit, undo, or redo. Answers when it is stored, with all that came since `base`. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const { base, ask, edit } = await readBody(request, body);
  if (ask !== 'edit') return json(await change(applicationId, builder.id, base, ask));
  return json(await change(applicationId, builder.id, base, { edit: edit as Edit }));
});
