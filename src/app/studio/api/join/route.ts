import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { thisBuilder } from '@/server/studio/builder';
import { acceptInvitation, joinByInvitation } from '@/server/studio/invitations';

const body = yup
  .object({ token: yup.string().max(200).required(), password: yup.string().max(1000) })
  .noUnknown();

/** Opens an invitation: for who is signed in; or, with a password, for who gets an account by it. */
export const POST = handle(async (request) => {
  const { token, password } = await readBody(request, body);
  const builder = password === undefined ? await thisBuilder() : undefined;
  if (builder) await acceptInvitation(token, builder);
  else await joinByInvitation(token, password ?? '');
  return nothing();
});
