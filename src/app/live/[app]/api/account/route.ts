import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { signUp } from '@/server/live/joining';
import { apiVisit } from '@/server/live/api';

const body = yup
  .object({ name: yup.string().max(300).default(''), email: yup.string().max(300).default('') })
  .noUnknown();

/** Asks for an account. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const now = await apiVisit((await params).app, request);
  await signUp(now, now.access.compiled.definition, await readBody(request, body));
  return nothing();
});
