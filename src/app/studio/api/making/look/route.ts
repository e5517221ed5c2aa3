import { handle } from '@/server/http/handle';
import { readForm } from '@/server/http/upload';
import { needBuilder } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/**
 * `POST …/making/look`: what the columns of CSV files hold, by all their rows; with `kinds`, how they would be as
 * those. Nothing is stored.
 */
export const POST = handle(async (request) => {
  const { id } = await needBuilder();
  return answerWhole(request, 'look-at-sheets', { upload: await readForm(request) }, id);
});
