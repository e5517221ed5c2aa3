import { liveSignIn, liveSignOut } from '@/contract/live';
import { json, nothing } from '@/server/http/handle';
import { atTheDoor } from '@/server/live/answering';
import { stopStandIn } from '@/server/live/acting-as';
import { liveClientOf } from '@/server/security/client';
import { ownAddress } from '@/server/http/origin';
import { cookieHeader, endSession, liveCookie } from '@/server/security/sessions';
import { signInToLive } from '@/server/security/sign-in';

/** Answers with where to go: back, or to the person's own start. */
export const POST = atTheDoor(liveSignIn, async (now, { request, params: { app }, body }) => {
  const client = await liveClientOf(request, app);
  const done = await signInToLive(now.applicationId, body.email, body.password, client);
  // A token from before signing in is of no more use to anybody.
  await stopStandIn(now);
  if (now.token) await endSession(now.token);
  const answer = json({ to: ownAddress(body.back, `/live/${app}`) ?? `/live/${app}`, failed: done.failed });
  answer.headers.append('Set-Cookie', cookieHeader(await liveCookie(app), done.token));
  answer.headers.append('Set-Cookie', cookieHeader(await liveCookie(app, 'device'), done.device));
  return answer;
});

export const DELETE = atTheDoor(liveSignOut, async (now, { params: { app } }) => {
  await stopStandIn(now);
  if (now.token) await endSession(now.token);
  return nothing({ 'Set-Cookie': cookieHeader(await liveCookie(app), null) });
});
