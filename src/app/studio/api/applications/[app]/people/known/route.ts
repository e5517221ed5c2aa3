import { peopleKnown } from '@/contract/studio/people';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const POST = inApplication(peopleKnown, ({ applicationId, builder }, { request, body }) =>
  answerWhole(request, 'people-known', { applicationId, body }, builder.id),
);
