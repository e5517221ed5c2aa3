import * as yup from 'yup';
import { draftOf } from '@/server/drafts/draft';
import { handle, json, readBody } from '@/server/http/handle';
import { exportPeople, importPeople } from '@/server/people/csv';
import { needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

const body = yup
  .object({ text: yup.string().max(900_000).required(), dry: yup.boolean().required() })
  .noUnknown();

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

/** Reads people from CSV: with `dry`, only tells line by line what would happen. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const { text, dry } = await readBody(request, body);
  const { definition } = await draftOf(applicationId);
  return json({ lines: await importPeople(applicationId, definition, { builderId: builder.id }, text, dry) });
});
