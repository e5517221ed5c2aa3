import { liveLiftPersonWaits } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { LookingAfter } from '@/server/live/looking-after';

export const DELETE = inLive(liveLiftPersonWaits, (now, { params }) =>
  LookingAfter.of(now).liftWaits(params.id),
);
