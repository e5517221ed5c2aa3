import { stateOf } from '@/server/drafts/state';
import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerByLine } from '@/server/work/run';

/** `POST …/review`: what a release of the draft would change, and for whom. Answers line by line while it is worked out. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  return answerByLine('review', { applicationId }, builder.id, await stateOf(applicationId));
});
