import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerFile } from '@/server/work/run';

/** `GET …/sign-offs/ID`: what was signed off, as a file whose SHA-256 is the one that was kept. */
export const GET = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  const { applicationId, slug, builder } = await needWorkplace(app, 'read');
  return answerFile(request, 'sign-off-file', { applicationId, id }, builder.id, {
    name: `${slug}-signed-off-${id.slice(0, 8)}.json`,
    type: 'application/json',
  });
});
