import { dataRequest } from '@/server/data/request';
import { handle } from '@/server/http/handle';
import { answerWhole } from '@/server/work/run';

type Params = { params: Promise<{ app: string; entity: string }> };

/** Takes all sample records over as live ones, where nothing is live yet. */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const of = await dataRequest(request, app, entity, 'change');
  return answerWhole(request, 'take-over', of, of.workplace.builder.id);
});
