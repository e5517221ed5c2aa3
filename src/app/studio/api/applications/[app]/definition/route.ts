import { draftOf } from '@/server/drafts/draft';
import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };

/** `GET …/definition`: the draft as a definition file. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId, slug } = await needWorkplace((await params).app, 'read');
  const { definition } = await draftOf(applicationId);
  return new Response(`${JSON.stringify(definition, null, 2)}\n`, {
    headers: {
      'Content-Type': 'application/json',
      'Content-Disposition': `attachment; filename="${slug}.json"`,
    },
  });
});
