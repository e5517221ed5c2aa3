import { handle, json, readText } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { exportExpectations, importExpectations } from '@/server/proving/expected-csv';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };
const MOST_BYTES = 1_000_000;

/** All expectations as CSV, in the columns of `zinc decide`. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId, slug } = await needWorkplace((await params).app, 'read');
  return new Response(await exportExpectations(applicationId), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8; header=present',
      'Content-Disposition': `attachment; filename="${slug}-expectations.csv"`,
    },
  });
});

/** Adds the expectations of a CSV file, which is the body: all or none. */
export const POST = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  if (!/^text\/csv(;|$)/.test(request.headers.get('content-type') ?? ''))
    throw new Refused(415, 'not-csv', 'Send the file as text/csv.');
  const text = await readText(request, MOST_BYTES);
  return json({ added: await importExpectations(applicationId, builder.id, text) }, { status: 201 });
});
