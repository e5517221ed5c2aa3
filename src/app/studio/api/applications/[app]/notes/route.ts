import { notesWaiting } from '@/contract/studio/look';
import { openNotes } from '@/server/look/notes';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(notesWaiting, async ({ applicationId }) => ({
  waiting: (await openNotes(applicationId)).length,
}));
