import { handle, json } from '@/server/http/handle';
import { definitionOf } from '@/server/look/look';
import { needWorkplace } from '@/server/studio/builder';

/** `GET …/look/definition?on=`: an older draft or a release, to draw what is left out of its screens. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json(await definitionOf(applicationId, new URL(request.url).searchParams.get('on') ?? 'draft'));
});
