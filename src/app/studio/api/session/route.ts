import { handle, json, nothing, readBody } from '@/server/http/handle';
import { credentialsBody } from '@/server/security/credentials';
import { ownAddress, ownOrigin } from '@/server/security/origin';
import { cookieHeader, endSession, studioCookie } from '@/server/security/sessions';
import { signInToStudio } from '@/server/security/sign-in';
import { thisBuilder } from '@/server/studio/builder';

const isSecure = (request: Request): boolean => ownOrigin(request).startsWith('https:');

export const POST = handle(async (request) => {
  const { email, password, back } = await readBody(request, credentialsBody);
  const token = await signInToStudio(email, password);
  const before = await thisBuilder();
  if (before) await endSession(before.token);
  const cookie = cookieHeader(await studioCookie(), token, isSecure(request));
  return json({ to: ownAddress(back, '/studio') ?? '/studio' }, { headers: { 'Set-Cookie': cookie } });
});

export const DELETE = handle(async (request) => {
  const builder = await thisBuilder();
  if (builder) await endSession(builder.token);
  return nothing({ 'Set-Cookie': cookieHeader(await studioCookie(), null, isSecure(request)) });
});
