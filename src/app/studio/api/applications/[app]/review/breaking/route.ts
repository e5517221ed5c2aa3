import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** `GET …/review/breaking`: which expectations a release of the draft would break, and whether it may. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  return answerWhole(request, 'breaking', { applicationId }, builder.id);
});
