import { importRecords } from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { answerByLine } from '@/server/work/run';

export const POST = aboutRecords(importRecords, (of, { body: upload }) =>
  answerByLine('import-records', { ...of, upload }, of.workplace.builder.id),
);
