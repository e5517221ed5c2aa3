import { definitionFile } from '@/contract/studio/draft';
import { draftOf } from '@/server/drafts/draft';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(definitionFile, async ({ applicationId, slug }) => {
  const { definition } = await draftOf(applicationId);
  return new Response(`${JSON.stringify(definition, null, 2)}\n`, {
    headers: {
      'Content-Type': 'application/json',
      'Content-Disposition': `attachment; filename="${slug}.json"`,
    },
  });
});
