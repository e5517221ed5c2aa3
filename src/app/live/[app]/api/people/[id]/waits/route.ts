import { liveLiftPersonWaits } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { PeopleManagement } from '@/server/live/people-management';

export const DELETE = inLive(liveLiftPersonWaits, (now, { params }) =>
  PeopleManagement.of(now).liftWaits(params.id),
);
