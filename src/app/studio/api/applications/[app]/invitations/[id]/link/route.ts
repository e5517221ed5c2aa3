import { isUuid } from '@/server/database/uuid';
import { handle, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { needOwner } from '@/server/studio/builder';
import { sendInvitationAgain } from '@/server/studio/invitations';

/** Sends a new link to somebody who has not opened theirs yet. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const workplace = await needOwner(app, 'lets builders in');
  if (!isUuid(id)) throw notThere();
  await sendInvitationAgain(workplace, id);
  return nothing();
});
