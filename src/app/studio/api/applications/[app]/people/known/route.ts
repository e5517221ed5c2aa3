import { readJson } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** The application's people by what a bench asks of them: how many are alike in it, and those asked for by name. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  const body = await readJson(request);
  return answerWhole(request, 'people-known', { applicationId, body }, builder.id);
});
