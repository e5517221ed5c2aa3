import { changeSchema } from '@/contract/schemas/draft';
import { parseBody } from '../http/body';
import { Refused } from '../http/problem';
import { change } from './draft';

/** Makes an edit of the draft, undoes one or redoes one, as it was sent. */
export async function changeAsSent(applicationId: string, builderId: string, body: string) {
  const { base, ask, edit, ...manner } = parseBody(body, changeSchema);
  if (ask !== 'edit') return change(applicationId, builderId, base, ask, manner);
  if (edit === undefined) throw new Refused(422, 'shape', 'The request must contain at least one edit.');
  return change(applicationId, builderId, base, { edit }, manner);
}
