import { breaking } from '@/contract/studio/releasing';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const GET = inApplication(breaking, ({ applicationId, builder }, { request }) =>
  answerWhole(request, 'breaking', { applicationId }, builder.id),
);
