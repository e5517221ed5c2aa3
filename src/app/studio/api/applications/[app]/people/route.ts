import { database } from '@/server/database/client';
import { draftOf } from '@/server/drafts/draft';
import { readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { personBody } from '@/server/people/input';
import { listPeople, readPeopleQuery } from '@/server/people/list';
import { createPerson } from '@/server/people/write';
import { needPeopleRight, needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

/** A page of the application's people. */
export const GET = handle<Context>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json(await listPeople(applicationId, readPeopleQuery(new URL(request.url).searchParams)));
});

/** A new person, who is somebody once they have opened the link that is sent to them. */
export const POST = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needPeopleRight((await params).app);
  const input = await readBody(request, personBody);
  const { definition } = await draftOf(applicationId);
  const id = await database().transaction((tx) =>
    createPerson(tx, applicationId, definition, { builderId: builder.id }, input),
  );
  return json({ id }, { status: 201 });
});
