import { dataAt } from '@/server/data/at';
import { importSheet } from '@/server/data/import';
import { handle } from '@/server/http/handle';
import { progressing } from '@/server/http/progress';
import { readForm, sheetsIn } from '@/server/making/sent-sheets';

type Params = { params: Promise<{ app: string; entity: string }> };

/**
 * Takes the rows of a CSV file over as records (`files`, one). With `dry` it only says what would come of it; with
 * `leave-out`, cells that do not fit are left empty. Answers line by line while it goes on.
 */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  const at = await dataAt(request, app, entity, 'change');
  const form = await readForm(request);
  const how = { dry: form.has('dry'), leaveOut: form.has('leave-out') };
  return progressing(async (tell, signal) => {
    const [sheet] = await sheetsIn(form, signal);
    if (!sheet) throw new Error('A form has at least one sheet');
    return importSheet(at, sheet, how, tell, signal);
  });
});
