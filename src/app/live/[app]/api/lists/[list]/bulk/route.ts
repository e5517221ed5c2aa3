import { LARGE, readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { apiVisit } from '@/server/live/api';
import { scopeOf, writerOf } from '@/server/live/visit';
import { bulkBody, WholeList } from '@/server/records/lists';
import { answerWhole } from '@/server/work/run';

/** The records of a list that can be chosen for that, with the search and filter of its page. */
export const GET = handle<{ params: Promise<{ app: string; list: string }> }>(async (request, { params }) => {
  const { app: slug, list } = await params;
  const { person, token } = await apiVisit(slug, request);
  const query = new URL(request.url).searchParams.toString();
  const owner = person?.id ?? request.headers.get('x-zinc-address') ?? '';
  return answerWhole(request, 'list-choices', { slug, token, list, query }, owner);
});

/** Changes the same fields of the chosen records of a list: all of them, or none. */
export const POST = handle<{ params: Promise<{ app: string; list: string }> }>(
  async (request, { params }) => {
    const { app, list: id } = await params;
    const now = await apiVisit(app, request);
    const { record, records, values } = await readBody(request, bulkBody, LARGE);
    const list = await WholeList.find(scopeOf(now), id, 'bulk', record);
    const changed = await list.change(writerOf(now), records, values);
    return json({ changed: changed.length });
  },
);
