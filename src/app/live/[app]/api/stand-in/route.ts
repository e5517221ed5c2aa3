import { standInChoices, startStandIn as startContract, stopStandIn as stopContract } from '@/contract/live';
import { atTheDoor } from '@/server/live/answering';
import { peopleToStandFor, startStandIn, stopStandIn } from '@/server/live/acting-as';

export const GET = atTheDoor(standInChoices, async (now, { query }) => ({
  people: await peopleToStandFor(now, query.get('q') ?? ''),
}));

export const POST = atTheDoor(startContract, (now, { body }) => startStandIn(now, body.person));

export const DELETE = atTheDoor(stopContract, (now) => stopStandIn(now));
