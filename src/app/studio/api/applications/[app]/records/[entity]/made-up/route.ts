import * as yup from 'yup';
import { dataAt } from '@/server/data/at';
import { addMadeUp } from '@/server/data/made-up';
import { handle, MOST_NUMBER, nothing, readBody } from '@/server/http/handle';

type Params = { params: Promise<{ app: string; entity: string }> };

const body = yup
  .object({
    seed: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    count: yup.number().integer().min(1, 'Ask for at least one.').max(MOST_NUMBER).required(),
  })
  .noUnknown();

/** Fills in made-up sample records. */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const at = await dataAt(request, app, entity, 'change');
  const { seed, count } = await readBody(request, body);
  await addMadeUp(at, seed, count);
  return nothing();
});
