import { livePress } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { pressSessionButton } from '@/server/live/session-values';

export const POST = inLive(livePress, (now, { body: { button, record } }) =>
  pressSessionButton(now, button, record),
);
