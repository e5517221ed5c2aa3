import * as yup from 'yup';
import { release } from '@/server/drafts/release';
import { handle, json, MOST_NUMBER, readBody } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';

const body = yup
  .object({
    revision: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    note: yup.string().trim().max(1000, 'A note has at most 1,000 characters.').default(''),
  })
  .noUnknown();

/** Releases the draft at the revision that was reviewed, with what its maker says of it. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const { revision, note } = await readBody(request, body);
  return json({ number: await release(applicationId, builder.id, revision, note) }, { status: 201 });
});
