import { gridFile } from '@/contract/studio/draft';
import { inApplication } from '@/server/studio/answering';
import { answerFile } from '@/server/work/run';

export const GET = inApplication(gridFile, (workplace, { request }) =>
  answerFile(request, 'grid-file', { workplace }, workplace.builder.id, {
    name: `${workplace.slug}-access.csv`,
    type: 'text/csv; charset=utf-8; header=present',
  }),
);
