import { readJson } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** `POST …/effect {edit}`: what an edit of the draft would change, before it is made: who gains and who loses what. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  const body = await readJson(request);
  return answerWhole(request, 'effect', { applicationId, body }, builder.id);
});
