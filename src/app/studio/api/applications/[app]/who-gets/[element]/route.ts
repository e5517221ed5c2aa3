import { whoGets } from '@/contract/studio/draft';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const GET = inApplication(whoGets, ({ applicationId, builder }, { request, params: { element } }) =>
  answerWhole(request, 'who-gets', { applicationId, element }, builder.id),
);
