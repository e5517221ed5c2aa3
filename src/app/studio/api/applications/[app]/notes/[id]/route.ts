import { handle, nothing } from '@/server/http/handle';
import { closeNote } from '@/server/look/notes';
import { needWorkplace } from '@/server/studio/builder';

/** Marks a note as dealt with. */
export const DELETE = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId } = await needWorkplace(app, 'change');
  await closeNote(applicationId, id);
  return nothing();
});
