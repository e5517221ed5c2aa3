import { addPerson as addContract, peoplePage } from '@/contract/studio/people';
import { listPeople, readPeopleQuery } from '@/server/people/list';
import { addPerson } from '@/server/studio/people-of-draft';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(peoplePage, ({ applicationId }, { query }) =>
  listPeople(applicationId, readPeopleQuery(query)),
);

export const POST = inApplication(addContract, async ({ applicationId, builder }, { body }) => ({
  id: await addPerson(applicationId, { builderId: builder.id }, body),
}));
