import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { pressSessionButton } from '@/server/live/session-values';
import { apiVisit } from '@/server/live/api';

const body = yup
  .object({ button: yup.string().max(60).required(), record: yup.string().max(60) })
  .noUnknown();

/** Presses a button that sets a session value. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const now = await apiVisit((await params).app, request);
  const { button, record } = await readBody(request, body);
  await pressSessionButton(now, button, record);
  return nothing();
});
