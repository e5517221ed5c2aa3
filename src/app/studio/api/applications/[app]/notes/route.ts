import { handle, json } from '@/server/http/handle';
import { openNotes } from '@/server/look/notes';
import { needWorkplace } from '@/server/studio/builder';

/** `GET …/notes`: how many notes wait. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json({ waiting: (await openNotes(applicationId)).length });
});
