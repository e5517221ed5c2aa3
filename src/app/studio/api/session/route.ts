import { cookies } from 'next/headers';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { clientOf } from '@/server/security/client';
import { credentialsBody } from '@/server/security/credentials';
import { ownAddress } from '@/server/security/origin';
import { cookieHeader, endSession, studioCookie } from '@/server/security/sessions';
import { signInToStudio } from '@/server/security/sign-in';
import { thisBuilder } from '@/server/studio/builder';

/** Signs in, and answers with where to go, and how many wrong tries there were in their name. */
export const POST = handle(async (request) => {
  const { email, password, back } = await readBody(request, credentialsBody);
  const device = await studioCookie('device');
  const done = await signInToStudio(email, password, clientOf(request, await cookies(), device.name));
  const before = await thisBuilder();
  if (before) await endSession(before.token);
  const answer = json({ to: ownAddress(back, '/studio') ?? '/studio', failed: done.failed });
  answer.headers.append('Set-Cookie', cookieHeader(await studioCookie(), done.token));
  answer.headers.append('Set-Cookie', cookieHeader(device, done.device));
  return answer;
});

export const DELETE = handle(async () => {
  const builder = await thisBuilder();
  if (builder) await endSession(builder.token);
  return nothing({ 'Set-Cookie': cookieHeader(await studioCookie(), null) });
});
