import { handle, json } from '@/server/http/handle';
import { compareSignOff } from '@/server/proving/sign-offs';
import { needWorkplace } from '@/server/studio/builder';

/** `GET …/sign-offs/ID/compared?with=ID`: what differs from it now, or in another one. */
export const GET = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  const { applicationId } = await needWorkplace(app, 'read');
  const other = new URL(request.url).searchParams.get('with') ?? undefined;
  return json(await compareSignOff(applicationId, id, other));
});
