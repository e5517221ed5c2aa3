import { cookies } from 'next/headers';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { stopStandIn } from '@/server/live/standing';
import { visit } from '@/server/live/visit';
import { credentialsBody } from '@/server/security/credentials';
import { clientOf } from '@/server/security/client';
import { ownAddress } from '@/server/security/origin';
import { cookieHeader, endSession, liveCookie } from '@/server/security/sessions';
import { signInToLive } from '@/server/security/sign-in';

interface Context {
  params: Promise<{ app: string }>;
}

/** Signs in, and answers with where to go (back, or to the person's own start), and how many wrong tries there were. */
export const POST = handle<Context>(async (request, { params }) => {
  const { app } = await params;
  const now = await visit(app, await cookies());
  if (!now) throw notThere();
  const { email, password, back } = await readBody(request, credentialsBody);
  const device = await liveCookie(app, 'device');
  const client = clientOf(request, await cookies(), device.name);
  const done = await signInToLive(now.applicationId, email, password, client);
  // A token from before signing in is of no more use to anybody.
  await stopStandIn(now);
  if (now.token) await endSession(now.token);
  const to = ownAddress(back, `/live/${app}`) ?? `/live/${app}`;
  const answer = json({ to, failed: done.failed });
  answer.headers.append('Set-Cookie', cookieHeader(await liveCookie(app), done.token));
  answer.headers.append('Set-Cookie', cookieHeader(device, done.device));
  return answer;
});

/** Signs out. */
export const DELETE = handle<Context>(async (_, { params }) => {
  const { app } = await params;
  const now = await visit(app, await cookies());
  if (now) await stopStandIn(now);
  if (now?.token) await endSession(now.token);
  return nothing({ 'Set-Cookie': cookieHeader(await liveCookie(app), null) });
});
