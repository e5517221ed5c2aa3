import { signOffFile } from '@/contract/studio/proving';
import { inApplication } from '@/server/studio/answering';
import { answerFile } from '@/server/work/run';

export const GET = inApplication(
  signOffFile,
  ({ applicationId, slug, builder }, { request, params: { id } }) =>
    answerFile(request, 'sign-off-file', { applicationId, id }, builder.id, {
      name: `${slug}-signed-off-${id.slice(0, 8)}.json`,
      type: 'application/json',
    }),
);
