import * as yup from 'yup';
import { handle, nothing, readBody } from '@/server/http/handle';
import { join } from '@/server/studio/builders';

const body = yup
  .object({ token: yup.string().max(200).required(), password: yup.string().max(1000).default('') })
  .noUnknown();

/** Chooses the password of a builder's account, by the link that they were let in with. */
export const POST = handle(async (request) => {
  const { token, password } = await readBody(request, body);
  await join(token, password);
  return nothing();
});
