import { dataRequest } from '@/server/data/request';
import { handle } from '@/server/http/handle';
import { readForm } from '@/server/http/upload';
import { answerByLine } from '@/server/work/run';

type Params = { params: Promise<{ app: string; entity: string }> };

/**
 * Takes the rows of a CSV file over as records (`files`, one). With `dry` it only says what would come of it; with
 * `leave-out`, cells that do not fit are left empty. Answers line by line while it goes on.
 */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const of = await dataRequest(request, app, entity, 'change');
  const upload = await readForm(request);
  return answerByLine('import-records', { ...of, upload }, of.workplace.builder.id);
});
