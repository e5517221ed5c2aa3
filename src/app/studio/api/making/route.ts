import { makeApplication } from '@/contract/studio/making';
import { asBuilder } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const POST = asBuilder(makeApplication, ({ id }, { request, body }) =>
  answerWhole(request, 'make-as-sent', { builderId: id, body }, id, 201),
);
