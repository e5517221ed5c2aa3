import { isUuid } from '@/server/database/uuid';
import { handle, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { needOwner } from '@/server/studio/builder';
import { takeBackInvitation } from '@/server/studio/invitations';

/** Takes an invitation back before it is opened. */
export const DELETE = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const workplace = await needOwner(app, 'lets builders in');
  if (!isUuid(id)) throw notThere();
  await takeBackInvitation(workplace, id);
  return nothing();
});
