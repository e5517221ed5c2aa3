import { MOST_NUMBER, readJson } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { revisionsSince, undoStateIn } from '@/server/drafts/draft';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

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

/** `POST …/draft`: make an edit, undo, or redo. Answers when it is stored, with all that came since `base`. Sent again
 * under the same `request` it is not done again. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const body = await readJson(request);
  return answerWhole(request, 'change', { applicationId, builderId: builder.id, body }, builder.id);
});
