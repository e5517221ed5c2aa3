import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { apiVisit } from '@/server/live/api';
import { choosePassword } from '@/server/people/links';

const body = yup
  .object({ token: yup.string().max(100).required(), password: yup.string().max(1000).default('') })
  .noUnknown();

/** Chooses a password, by the link that was sent to somebody's address. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await apiVisit((await params).app, request);
  const { token, password } = await readBody(request, body);
  await choosePassword(applicationId, token, password);
  return nothing();
});
