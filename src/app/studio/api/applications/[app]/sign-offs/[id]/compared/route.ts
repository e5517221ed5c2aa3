import { handle } from '@/server/http/handle';
import { progressing } from '@/server/http/progress';
import { compareSignOff } from '@/server/proving/compare-sign-offs';
import { needWorkplace } from '@/server/studio/builder';

/** `POST …/sign-offs/ID/compared?with=ID`: what differs from it now, or in another one. Answers line by line while it compares. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  const { applicationId } = await needWorkplace(app, 'read');
  const other = new URL(request.url).searchParams.get('with') ?? undefined;
  return progressing((tell, signal) => compareSignOff(applicationId, id, other, tell, signal));
});
