import * as yup from 'yup';
import { handle, nothing, readBody } from '@/server/http/handle';
import { signUp } from '@/server/live/joining';
import { apiVisit } from '@/server/live/api';
import { ownOrigin } from '@/server/security/origin';

const body = yup
  .object({
    name: yup.string().max(300).default(''),
    email: yup.string().trim().max(300).default(''),
    password: yup.string().max(1000).default(''),
  })
  .noUnknown();

/** Asks for an account. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { app } = await params;
  const now = await apiVisit(app, request);
  const input = await readBody(request, body);
  await signUp(now, now.access.compiled.definition, input, `${ownOrigin(request)}/live/${app}`);
  return nothing();
});
