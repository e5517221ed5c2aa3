import { handle } from '@/server/http/handle';
import { readForm } from '@/server/http/upload';
import { needBuilder } from '@/server/studio/builder';
import { answerByLine } from '@/server/work/run';

/** `POST …/making/sheets`: makes an application from CSV files or tables, and tells how far it is: all of it, or nothing. */
export const POST = handle(async (request) => {
  const { id } = await needBuilder();
  return answerByLine('make-from-sheets', { builderId: id, upload: await readForm(request) }, id);
});
