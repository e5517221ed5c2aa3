import { readJson } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { needBuilder } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

const MOST_BYTES = 1_400_000;

/** `POST …/making`: makes an application from nothing, as a copy of one, or from a definition file. */
export const POST = handle(async (request) => {
  const { id } = await needBuilder();
  const body = await readJson(request, MOST_BYTES);
  return answerWhole(request, 'make-as-sent', { builderId: id, body }, id, 201);
});
