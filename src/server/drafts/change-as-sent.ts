import * as yup from 'yup';
import { editSchema } from '@/core/edit';
import { optional } from '@/core/model';
import { MOST_NUMBER, parseBody } from '../http/body';
import { Refused } from '../http/problem';
import { change } from './draft';

const sent = yup
  .object({
    base: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    ask: yup.string().oneOf(['edit', 'undo', 'redo']).required(),
    edit: optional(editSchema),
    request: yup.string().uuid(),
    confirmed: yup.string().max(40),
  })
  .noUnknown();

/** Makes an edit of the draft, undoes one or redoes one, as it was sent. */
export async function changeAsSent(applicationId: string, builderId: string, body: string) {
  const { base, ask, edit, ...manner } = parseBody(body, sent);
  if (ask !== 'edit') return change(applicationId, builderId, base, ask, manner);
  if (edit === undefined) throw new Refused(422, 'shape', 'An edit is missing.');
  return change(applicationId, builderId, base, { edit }, manner);
}
