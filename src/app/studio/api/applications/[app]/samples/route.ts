import { handle, json } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { kindOf } from '@/server/look/look';
import { samplesOf } from '@/server/studio/samples';

/** `GET …/samples?entity=ID&q=&records=`: records to look at. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const workplace = await needWorkplace((await params).app, 'read');
  const { searchParams: query, pathname } = new URL(request.url);
  const kind = await kindOf(workplace, query, pathname);
  return json({
    samples: await samplesOf(workplace.applicationId, kind, query.get('entity') ?? '', query.get('q') ?? ''),
  });
});
