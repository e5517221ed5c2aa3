import { closeNote as contract } from '@/contract/studio/look';
import { closeNote } from '@/server/look/notes';
import { inApplication } from '@/server/studio/answering';

export const DELETE = inApplication(contract, ({ applicationId }, { params }) =>
  closeNote(applicationId, params.id),
);
