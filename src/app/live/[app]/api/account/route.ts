import { cookies } from 'next/headers';
import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { signUp } from '@/server/live/joining';
import { apiVisit } from '@/server/live/api';
import { clientOf } from '@/server/security/client';
import { liveCookie } from '@/server/security/sessions';

const body = yup
  .object({ name: yup.string().max(300).default(''), email: yup.string().max(300).default('') })
  .noUnknown();

/** Asks for an account. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { app } = await params;
  const now = await apiVisit(app, request);
  const client = clientOf(request, await cookies(), (await liveCookie(app, 'device')).name);
  await signUp(now, now.access.compiled.definition, await readBody(request, body), client);
  return nothing();
});
