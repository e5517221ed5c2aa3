import { liveAddPerson, livePeople } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { LookingAfter } from '@/server/live/looking-after';
import { readPeopleQuery } from '@/server/people/list';

export const GET = inLive(livePeople, async (now, { query }) => {
  const after = LookingAfter.of(now);
  return { ...(await after.list(readPeopleQuery(query))), offers: after.offers() };
});

export const POST = inLive(liveAddPerson, (now, { body }) => LookingAfter.of(now).create(body));
