import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { sessionButton } from '@/server/live/session-values';
import { lookOfRequest } from '@/server/look/records';

const body = yup
  .object({ button: yup.string().max(60).required(), record: yup.string().max(60) })
  .noUnknown();

/** Presses a button that sets a session value: decided as in a release. The pane holds what it sets. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { scope } = await lookOfRequest((await params).app, request);
  const { button, record } = await readBody(request, body);
  return json(await sessionButton(scope, button, record));
});
