import { readJson } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** For how many people and sample records a condition is true now, with examples. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  const body = await readJson(request);
  return answerWhole(request, 'try', { applicationId, body }, builder.id);
});
