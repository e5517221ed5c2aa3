import { liveAddPerson, livePeople } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { PeopleManagement } from '@/server/live/people-management';
import { readPeopleQuery } from '@/server/people/list';

export const GET = inLive(livePeople, async (now, { query }) => {
  const after = PeopleManagement.of(now);
  return { ...(await after.list(readPeopleQuery(query))), offers: after.offers() };
});

export const POST = inLive(liveAddPerson, (now, { body }) => PeopleManagement.of(now).create(body));
