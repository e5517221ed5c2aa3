import { database } from '@/server/database/client';
import { draftOf } from '@/server/drafts/draft';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { personChangeBody } from '@/server/people/input';
import { personById } from '@/server/people/read';
import { sessionsOf } from '@/server/people/sessions';
import { updatePerson } from '@/server/people/write';
import { needPeopleRight, needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string; id: string }>;
}

/** A person with what their sessions hold now. */
export const GET = handle<Context>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId } = await needWorkplace(app, 'read');
  const person = await personById(applicationId, id);
  if (!person) throw notThere();
  return json({ person, sessions: await sessionsOf(id) });
});

/** Changes a person; switching off ends their sessions at once. */
export const PATCH = handle<Context>(async (request, { params }) => {
  const { app, id } = await params;
  const { applicationId, builder } = await needPeopleRight(app);
  const input = await readBody(request, personChangeBody);
  const { definition } = await draftOf(applicationId);
  await database().transaction((tx) =>
    updatePerson(tx, applicationId, definition, { builderId: builder.id }, id, input),
  );
  return nothing();
});
