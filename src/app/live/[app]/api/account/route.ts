import { signUp as contract } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { signUp } from '@/server/live/joining';
import { liveClientOf } from '@/server/security/client';

export const POST = inLive(contract, async (now, { request, params: { app }, body }) =>
  signUp(now, now.access.compiled.definition, body, await liveClientOf(request, app)),
);
