import { importPeople, peopleFile } from '@/contract/studio/people';
import { inApplication } from '@/server/studio/answering';
import { answerFile, answerWhole } from '@/server/work/run';

export const GET = inApplication(peopleFile, ({ applicationId, slug, builder }, { request }) =>
  answerFile(request, 'export-people', { applicationId }, builder.id, {
    name: `${slug}-people.csv`,
    type: 'text/csv; charset=utf-8; header=present',
  }),
);

export const POST = inApplication(importPeople, ({ applicationId, builder }, { request, query, body }) => {
  const input = { applicationId, builderId: builder.id, file: body, dry: query.get('dry') === 'yes' };
  return answerWhole(request, 'import-people', input, builder.id);
});
