import { signIn, signOut } from '@/contract/studio/account';
import { json, nothing } from '@/server/http/handle';
import { studioClientOf } from '@/server/security/client';
import { ownAddress } from '@/server/http/origin';
import { cookieHeader, endSession, studioCookie } from '@/server/security/sessions';
import { signInToStudio } from '@/server/security/sign-in';
import { asAnybody } from '@/server/studio/answering';
import { thisBuilder } from '@/server/studio/builder';

export const POST = asAnybody(signIn, async ({ request, body: { email, password, back } }) => {
  const done = await signInToStudio(email, password, await studioClientOf(request));
  const before = await thisBuilder();
  if (before) await endSession(before.token);
  const answer = json({ to: ownAddress(back, '/studio') ?? '/studio', failed: done.failed });
  answer.headers.append('Set-Cookie', cookieHeader(await studioCookie(), done.token));
  answer.headers.append('Set-Cookie', cookieHeader(await studioCookie('device'), done.device));
  return answer;
});

export const DELETE = asAnybody(signOut, async () => {
  const builder = await thisBuilder();
  if (builder) await endSession(builder.token);
  return nothing({ 'Set-Cookie': cookieHeader(await studioCookie(), null) });
});
