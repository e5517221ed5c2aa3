import { handle } from '@/server/http/handle';
import { readQuery } from '@/server/live/screen-page';
import { lookOfRequest } from '@/server/look/records';
import { WholeList } from '@/server/records/lists';

/** A list as CSV, with the search, filter and sort of its page. */
export const GET = handle<{ params: Promise<{ app: string; list: string }> }>(async (request, { params }) => {
  const { app, list: id } = await params;
  const look = await lookOfRequest(app, request);
  const query = new URL(request.url).searchParams;
  const list = await WholeList.find(look.scope, id, 'export', query.get('record') ?? undefined);
  return new Response(await list.csv(readQuery(query, list.shown)), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8; header=present',
      'Content-Disposition': 'attachment; filename="list.csv"',
    },
  });
});
