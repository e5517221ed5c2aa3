import { handle } from '@/server/http/handle';
import { apiVisit } from '@/server/live/api';
import { answerStream } from '@/server/work/run';

/** A list as CSV, whole, with the search, filter and sort of its page. */
export const GET = handle<{ params: Promise<{ app: string; list: string }> }>(async (request, { params }) => {
  const { app: slug, list } = await params;
  const { person, token } = await apiVisit(slug, request);
  const query = new URL(request.url).searchParams.toString();
  // Those who are signed out are told apart by where they ask from.
  const owner = person?.id ?? request.headers.get('x-zinc-address') ?? '';
  return answerStream(request, 'list-file', { slug, token, list, query }, owner, {
    'Content-Type': 'text/csv; charset=utf-8; header=present',
    'Content-Disposition': 'attachment; filename="list.csv"',
  });
});
