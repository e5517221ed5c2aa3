import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerFile } from '@/server/work/run';

/** The grid as CSV (RFC 4180): an element a row, a viewer a column, each level in words. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { app } = await params;
  const workplace = await needWorkplace(app, 'read');
  return answerFile(request, 'grid-file', { workplace }, workplace.builder.id, {
    name: `${app}-access.csv`,
    type: 'text/csv; charset=utf-8; header=present',
  });
});
