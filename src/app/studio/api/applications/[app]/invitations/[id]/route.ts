import { takeBackInvitation as contract } from '@/contract/studio/builders';
import { isUuid } from '@/server/database/uuid';
import { notThere } from '@/server/http/problem';
import { inApplication } from '@/server/studio/answering';
import { takeBackInvitation } from '@/server/studio/invitations';

export const DELETE = inApplication(contract, async (here, { params: { id } }) => {
  if (!isUuid(id)) throw notThere();
  await takeBackInvitation(here, id);
});
