import { dataRequest } from '@/server/data/request';
import { readJson } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { answerWhole } from '@/server/work/run';

type Params = { params: Promise<{ app: string; entity: string }> };

/** What would become of the records if a field held another type. Nothing is changed. */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const of = await dataRequest(request, app, entity, 'read');
  const body = await readJson(request);
  return answerWhole(request, 'turned', { ...of, body }, of.workplace.builder.id);
});
