import * as yup from 'yup';
import { handle, json, readBody } from '@/server/http/handle';
import { unlock } from '@/server/live/unlock';
import { apiVisit } from '@/server/live/api';

const body = yup
  .object({
    element: yup.string().max(60).required(),
    record: yup.string().max(60),
    email: yup.string().max(300).required(),
    password: yup.string().max(1000).required(),
  })
  .noUnknown();

/** Opens one locked element on this session's screen, by somebody who may, for a while. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const now = await apiVisit((await params).app, request);
  const { element, record, ...credentials } = await readBody(request, body);
  return json({ minutes: await unlock(now, element, record, credentials) });
});
