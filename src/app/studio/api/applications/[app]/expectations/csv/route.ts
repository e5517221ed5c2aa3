import { textOf } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { readCsv } from '@/server/http/upload';
import { needWorkplace } from '@/server/studio/builder';
import { answerFile, answerWhole } from '@/server/work/run';

type Params = { params: Promise<{ app: string }> };
const MOST_BYTES = 1_000_000;

/** All expectations as CSV, in the columns of `zinc decide`. */
export const GET = handle<Params>(async (request, { params }) => {
  const { applicationId, slug, builder } = await needWorkplace((await params).app, 'read');
  return answerFile(request, 'export-expectations', { applicationId }, builder.id, {
    name: `${slug}-expectations.csv`,
    type: 'text/csv; charset=utf-8; header=present',
  });
});

/** Adds the expectations of a CSV file, which is the body: all or none. */
export const POST = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const text = textOf(await readCsv(request, MOST_BYTES));
  return answerWhole(
    request,
    'import-expectations',
    { applicationId, builderId: builder.id, text },
    builder.id,
    201,
  );
});
