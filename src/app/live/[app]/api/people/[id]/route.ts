import { liveChangePerson } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { PeopleManagement } from '@/server/live/people-management';

export const PATCH = inLive(liveChangePerson, (now, { params, body }) =>
  PeopleManagement.of(now).update(params.id, body),
);
