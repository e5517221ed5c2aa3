import { tryCondition } from '@/contract/studio/draft';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const POST = inApplication(tryCondition, ({ applicationId, builder }, { request, body }) =>
  answerWhole(request, 'try', { applicationId, body }, builder.id),
);
