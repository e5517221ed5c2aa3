import { liveChangePerson } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { LookingAfter } from '@/server/live/looking-after';

export const PATCH = inLive(liveChangePerson, (now, { params, body }) =>
  LookingAfter.of(now).update(params.id, body),
);
