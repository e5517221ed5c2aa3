import { effectOfEdit } from '@/contract/studio/draft';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const POST = inApplication(effectOfEdit, ({ applicationId, builder }, { request, body }) =>
  answerWhole(request, 'effect', { applicationId, body }, builder.id),
);
