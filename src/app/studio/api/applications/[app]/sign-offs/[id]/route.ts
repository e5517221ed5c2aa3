import { handle } from '@/server/http/handle';
import { contentOf, signOffById } from '@/server/proving/sign-offs';
import { needWorkplace } from '@/server/studio/builder';

/** `GET …/sign-offs/ID`: what was signed off, as a file whose SHA-256 is the one that was kept. */
export const GET = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId, slug } = await needWorkplace(app, 'read');
  const found = await signOffById(applicationId, id);
  return new Response(contentOf(found), {
    headers: {
      'Content-Type': 'application/json',
      'Content-Disposition': `attachment; filename="${slug}-signed-off-${found.revision}.json"`,
    },
  });
});
