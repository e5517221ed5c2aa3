import { draftOf } from '@/server/drafts/draft';
import { handle, json, readText } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { exportPeople, importPeople } from '@/server/people/csv';
import { needPeopleRight, needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

const MOST_BYTES = 30_000_000;

/** Everybody, as CSV. */
export const GET = handle<Context>(async (_, { params }) => {
  const { applicationId, slug } = await needWorkplace((await params).app, 'read');
  const { definition } = await draftOf(applicationId);
  return new Response(await exportPeople(applicationId, definition), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8; header=present',
      'Content-Disposition': `attachment; filename="${slug}-people.csv"`,
    },
  });
});

/** Reads people from CSV, which is the body: with `dry=yes`, only tells line by line what would happen. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needPeopleRight((await params).app);
  if (!/^text\/csv(;|$)/.test(request.headers.get('content-type') ?? ''))
    throw new Refused(415, 'not-csv', 'Send the file as text/csv.');
  const dry = new URL(request.url).searchParams.get('dry') === 'yes';
  const text = await readText(request, MOST_BYTES);
  const { definition } = await draftOf(applicationId);
  return json(
    await importPeople(applicationId, definition, { builderId: builder.id }, text, dry, request.signal),
  );
});
