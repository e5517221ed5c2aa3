import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerByLine } from '@/server/work/run';

/** `POST …/sign-offs/ID/compared?with=ID`: what differs from it now, or in another one. Answers line by line while it compares. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  const { applicationId, builder } = await needWorkplace(app, 'read');
  const other = new URL(request.url).searchParams.get('with') ?? undefined;
  return answerByLine('compare-sign-off', { applicationId, id, other }, builder.id);
});
