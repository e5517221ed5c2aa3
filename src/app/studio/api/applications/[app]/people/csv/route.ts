import { handle } from '@/server/http/handle';
import { readCsv } from '@/server/http/upload';
import { needPeopleRight, needWorkplace } from '@/server/studio/builder';
import { answerFile, answerWhole } from '@/server/work/run';

interface Context {
  params: Promise<{ app: string }>;
}

const MOST_BYTES = 30_000_000;

/** Everybody, as CSV. */
export const GET = handle<Context>(async (request, { params }) => {
  const { applicationId, slug, builder } = await needWorkplace((await params).app, 'read');
  return answerFile(request, 'export-people', { applicationId }, builder.id, {
    name: `${slug}-people.csv`,
    type: 'text/csv; charset=utf-8; header=present',
  });
});

/** Reads people from CSV, which is the body: with `dry=yes`, only tells line by line what would happen. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needPeopleRight((await params).app);
  const dry = new URL(request.url).searchParams.get('dry') === 'yes';
  const file = await readCsv(request, MOST_BYTES);
  return answerWhole(
    request,
    'import-people',
    { applicationId, builderId: builder.id, file, dry },
    builder.id,
  );
});
