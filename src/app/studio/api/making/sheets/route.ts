import { makeFromSheets } from '@/contract/studio/making';
import { asBuilder } from '@/server/studio/answering';
import { answerByLine } from '@/server/work/run';

export const POST = asBuilder(makeFromSheets, ({ id }, { body: upload }) =>
  answerByLine('make-from-sheets', { builderId: id, upload }, id),
);
