import * as yup from 'yup';
import { editSchema } from '@/core/edit';
import { effectOfEdit } from '@/server/drafts/effect';
import { handle, json, LARGE, readBody } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';

const body = yup.object({ edit: editSchema }).noUnknown();

/** What an edit of the draft would change, before it is made: who gains and who loses what. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const { edit } = await readBody(request, body, LARGE);
  return json(await effectOfEdit(applicationId, edit));
});
