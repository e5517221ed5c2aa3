import { handle, json } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { samplesOf } from '@/server/studio/canvas';

/** `GET …/samples?entity=ID`: sample records to look at. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const entity = new URL(request.url).searchParams.get('entity') ?? '';
  return json({ samples: await samplesOf(applicationId, entity) });
});
