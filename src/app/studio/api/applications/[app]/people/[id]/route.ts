import { changePerson as changeContract, personWithSessions } from '@/contract/studio/people';
import { notThere } from '@/server/http/problem';
import { personById } from '@/server/people/read';
import { changePerson } from '@/server/studio/people-of-draft';
import { sessionsOf } from '@/server/people/sessions';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(personWithSessions, async ({ applicationId }, { params: { id } }) => {
  const person = await personById(applicationId, id);
  if (!person) throw notThere();
  return { person, sessions: await sessionsOf(id) };
});

export const PATCH = inApplication(changeContract, ({ applicationId, builder }, { params, body }) =>
  changePerson(applicationId, { builderId: builder.id }, params.id, body),
);
