import { cookies } from 'next/headers';
import * as yup from 'yup';
import { handle, nothing, readBody } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { pressSessionButton } from '@/server/live/session-values';
import { visit } from '@/server/live/visit';

const body = yup.object({ button: yup.string().required(), record: yup.string() }).noUnknown();

/** Presses a button that sets a session value. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const now = await visit((await params).app, await cookies());
  if (!now) throw notThere();
  const { button, record } = await readBody(request, body);
  await pressSessionButton(now, button, record);
  return nothing();
});
