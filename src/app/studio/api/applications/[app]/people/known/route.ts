import { draftOf } from '@/server/drafts/draft';
import { handle, json, LARGE, readBody } from '@/server/http/handle';
import { askedBody, peopleKnown } from '@/server/people/known';
import { needWorkplace } from '@/server/studio/builder';

/** The application's people by what a bench asks of them: how many are alike in it, and those asked for by name. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const asked = await readBody(request, askedBody, LARGE);
  const { definition } = await draftOf(applicationId);
  return json(await peopleKnown(applicationId, definition, asked));
});
