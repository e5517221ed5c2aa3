import { join } from '@/contract/studio/builders';
import { asAnybody } from '@/server/studio/answering';
import { thisBuilder } from '@/server/studio/builder';
import { acceptInvitation, joinByInvitation } from '@/server/studio/invitations';

export const POST = asAnybody(join, async ({ body: { token, password } }) => {
  const builder = password === undefined ? await thisBuilder() : undefined;
  await (builder ? acceptInvitation(token, builder) : joinByInvitation(token, password ?? ''));
});
