import { lockAgain as lockContract, unlock as unlockContract } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { lockAgain, unlock } from '@/server/live/unlock';
import { liveClientOf } from '@/server/security/client';

export const POST = inLive(unlockContract, async (now, { request, params: { app }, body }) => {
  const { element, record, ...credentials } = body;
  const client = await liveClientOf(request, app);
  return { minutes: await unlock(now, element, record, credentials, client) };
});

export const DELETE = inLive(lockContract, (now, { body: { element, record } }) =>
  lockAgain(now, element, record),
);
