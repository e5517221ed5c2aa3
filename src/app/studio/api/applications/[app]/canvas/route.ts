import { handle, json } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { canvasPage } from '@/server/studio/canvas';

/** `GET …/canvas?viewer=KEY&address=ADDRESS`, and the lists' own parts: the draft's page as that viewer has it. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const query = new URL(request.url).searchParams;
  return json(await canvasPage(applicationId, query.get('viewer') ?? '', query.get('address') ?? '', query));
});
