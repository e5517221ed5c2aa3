import { isUuid } from '@/server/database/uuid';
import { handle, json } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { needOwner } from '@/server/studio/builder';
import { linkForInvitation } from '@/server/studio/invitations';

/** Makes a new link for somebody who has not opened theirs yet. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const workplace = await needOwner(app, 'lets builders in');
  if (!isUuid(id)) throw notThere();
  return json({ link: await linkForInvitation(workplace, id) });
});
