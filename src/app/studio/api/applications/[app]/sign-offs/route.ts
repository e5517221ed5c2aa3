import { signOff, signOffs } from '@/contract/studio/proving';
import { listSignOffs } from '@/server/proving/sign-offs';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const GET = inApplication(signOffs, async ({ applicationId }) => ({
  signOffs: await listSignOffs(applicationId),
}));

export const POST = inApplication(signOff, ({ applicationId, builder }, { request, body }) => {
  const input = { applicationId, builderId: builder.id, ...body };
  return answerWhole(request, 'sign-off', input, builder.id, 201);
});
