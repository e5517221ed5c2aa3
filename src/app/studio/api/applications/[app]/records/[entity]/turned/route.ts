import { turnedRecords } from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { answerWhole } from '@/server/work/run';

export const POST = aboutRecords(turnedRecords, (of, { request, body }) =>
  answerWhole(request, 'turned', { ...of, body }, of.workplace.builder.id),
);
