import { liveListFile } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { ownerOfVisit } from '@/server/live/visit';
import { answerStream } from '@/server/work/run';

export const GET = inLive(liveListFile, (now, { request, params: { app: slug, list }, query }) => {
  const input = { slug, token: now.token, list, query: query.toString() };
  return answerStream(request, 'list-file', input, ownerOfVisit(now, request), {
    'Content-Type': 'text/csv; charset=utf-8; header=present',
    'Content-Disposition': 'attachment; filename="list.csv"',
  });
});
