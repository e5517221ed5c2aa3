import { cookies } from 'next/headers';
import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { lockAgain, unlock } from '@/server/live/unlock';
import { apiVisit } from '@/server/live/api';
import { clientOf } from '@/server/security/client';
import { liveCookie } from '@/server/security/sessions';

type Params = { params: Promise<{ app: string }> };

const one = { element: yup.string().max(60).required(), record: yup.string().max(60).required() };
const body = yup
  .object({
    ...one,
    email: yup.string().max(300).required(),
    password: yup.string().max(1000).required(),
  })
  .noUnknown();
const place = yup.object(one).noUnknown();

/** Opens one closed element of one record on this session's screen, by somebody who may, for a while. */
export const POST = handle<Params>(async (request, { params }) => {
  const { app } = await params;
  const now = await apiVisit(app, request);
  const { element, record, ...credentials } = await readBody(request, body);
  const client = clientOf(request, await cookies(), (await liveCookie(app, 'device')).name);
  return json({ minutes: await unlock(now, element, record, credentials, client) });
});

/** Locks it again. */
export const DELETE = handle<Params>(async (request, { params }) => {
  const now = await apiVisit((await params).app, request);
  const { element, record } = await readBody(request, place);
  await lockAgain(now, element, record);
  return nothing();
});
