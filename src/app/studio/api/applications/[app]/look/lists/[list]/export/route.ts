import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerStream } from '@/server/work/run';

/** A list as CSV, with the search, filter and sort of its page. */
export const GET = handle<{ params: Promise<{ app: string; list: string }> }>(async (request, { params }) => {
  const { app, list } = await params;
  const workplace = await needWorkplace(app, 'read');
  const { searchParams, pathname: path } = new URL(request.url);
  const look = { workplace, query: searchParams.toString(), path };
  return answerStream(request, 'list-file-of-look', { ...look, list }, workplace.builder.id, {
    'Content-Type': 'text/csv; charset=utf-8; header=present',
    'Content-Disposition': 'attachment; filename="list.csv"',
  });
});
