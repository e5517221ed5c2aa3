import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { apiVisit } from '@/server/live/api';
import { sendNote } from '@/server/live/notes';

const body = yup
  .object({
    address: yup.string().max(500).required(),
    element: yup.string().max(200),
    text: yup.string().max(2000).default(''),
  })
  .noUnknown();

/** "I should be able to see this": a note to the builders. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const now = await apiVisit((await params).app, request);
  await sendNote(now, await readBody(request, body));
  return nothing();
});
