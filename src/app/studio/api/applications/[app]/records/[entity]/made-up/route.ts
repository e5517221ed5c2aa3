import * as yup from 'yup';
import { dataRequest } from '@/server/data/request';
import { MOST_NUMBER, readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { inWorker } from '@/server/work/run';

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
  const of = await dataRequest(request, app, entity, 'change');
  const { seed, count } = await readBody(request, body);
  const { signal } = request;
  await inWorker('made-up', { ...of, seed, count }, { owner: of.workplace.builder.id, signal });
  return nothing();
});
