import { LARGE, readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { lookOfRequest } from '@/server/look/records';
import { bulkBody, WholeList } from '@/server/records/lists';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** The records of a list that can be chosen for that, with the search and filter of its page. */
export const GET = handle<{ params: Promise<{ app: string; list: string }> }>(async (request, { params }) => {
  const { app, list } = await params;
  const workplace = await needWorkplace(app, 'read');
  const { searchParams, pathname: path } = new URL(request.url);
  const look = { workplace, query: searchParams.toString(), path };
  return answerWhole(request, 'list-choices-of-look', { ...look, list }, workplace.builder.id);
});

/** Changes the same fields of the chosen records of a list: all of them, or none. */
export const POST = handle<{ params: Promise<{ app: string; list: string }> }>(
  async (request, { params }) => {
    const { app, list: id } = await params;
    const look = await lookOfRequest(app, request);
    const { record, records, values } = await readBody(request, bulkBody, LARGE);
    const list = await WholeList.find(look.scope, id, 'bulk', record);
    const changed = await list.change(look.writer, records, values);
    return json({ changed: changed.length });
  },
);
