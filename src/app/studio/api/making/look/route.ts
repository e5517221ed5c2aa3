import { lookAtSheets } from '@/contract/studio/making';
import { asBuilder } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const POST = asBuilder(lookAtSheets, ({ id }, { request, body: upload }) =>
  answerWhole(request, 'look-at-sheets', { upload }, id),
);
