import { expectationsFile, importExpectations } from '@/contract/studio/proving';
import { textOf } from '@/server/http/body';
import { inApplication } from '@/server/studio/answering';
import { answerFile, answerWhole } from '@/server/work/run';

export const GET = inApplication(expectationsFile, ({ applicationId, slug, builder }, { request }) =>
  answerFile(request, 'export-expectations', { applicationId }, builder.id, {
    name: `${slug}-expectations.csv`,
    type: 'text/csv; charset=utf-8; header=present',
  }),
);

export const POST = inApplication(importExpectations, ({ applicationId, builder }, { request, body }) => {
  const input = { applicationId, builderId: builder.id, text: textOf(body) };
  return answerWhole(request, 'import-expectations', input, builder.id, 201);
});
