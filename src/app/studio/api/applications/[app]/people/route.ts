import { database } from '@/server/database/client';
import { draftOf } from '@/server/drafts/draft';
import { handle, json, readBody } from '@/server/http/handle';
import { personBody } from '@/server/people/input';
import { listPeople, readPeopleQuery } from '@/server/people/list';
import { createPerson, newPassword } from '@/server/people/write';
import { needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

/** A page of the application's people. */
export const GET = handle<Context>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json(await listPeople(applicationId, readPeopleQuery(new URL(request.url).searchParams)));
});

/** A new person, with a password that is told once. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const input = await readBody(request, personBody);
  const { definition } = await draftOf(applicationId);
  const { password, passwordHash } = await newPassword();
  const id = await database().transaction((tx) =>
    createPerson(tx, applicationId, definition, { builderId: builder.id }, input, passwordHash),
  );
  return json({ id, password }, { status: 201 });
});
