import { takeOverSamples } from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { answerWhole } from '@/server/work/run';

export const POST = aboutRecords(takeOverSamples, (of, { request }) =>
  answerWhole(request, 'take-over', of, of.workplace.builder.id),
);
