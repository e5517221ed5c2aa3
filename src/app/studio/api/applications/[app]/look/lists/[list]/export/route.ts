import { lookListFile } from '@/contract/studio/look';
import { inApplication } from '@/server/studio/answering';
import { answerStream } from '@/server/work/run';

export const GET = inApplication(lookListFile, (workplace, { request, params: { list }, query }) => {
  const look = { workplace, query: query.toString(), path: new URL(request.url).pathname };
  return answerStream(request, 'list-file-of-look', { ...look, list }, workplace.builder.id, {
    'Content-Type': 'text/csv; charset=utf-8; header=present',
    'Content-Disposition': 'attachment; filename="list.csv"',
  });
});
