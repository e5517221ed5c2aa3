import { cookies } from 'next/headers';
import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { clientOf } from '@/server/security/client';
import { studioCookie } from '@/server/security/sessions';
import { changePassword, endOtherSessions, renameBuilder } from '@/server/studio/account';
import { needBuilder } from '@/server/studio/builder';

const named = yup.object({ name: yup.string().max(300).default('') }).noUnknown();

/** Gives oneself another name. */
export const PATCH = handle(async (request) => {
  const builder = await needBuilder();
  await renameBuilder(builder, (await readBody(request, named)).name);
  return nothing();
});

const passwords = yup
  .object({ now: yup.string().max(1000).default(''), password: yup.string().max(1000).default('') })
  .noUnknown();

/** Chooses another password, knowing the one before. All other sessions end. */
export const PUT = handle(async (request) => {
  const builder = await needBuilder();
  const { now, password } = await readBody(request, passwords);
  const device = await studioCookie('device');
  await changePassword(builder, now, password, clientOf(request, await cookies(), device.name));
  return nothing();
});

/** Ends all other sessions of oneself. */
export const DELETE = handle(async () => {
  await endOtherSessions(await needBuilder());
  return nothing();
});
