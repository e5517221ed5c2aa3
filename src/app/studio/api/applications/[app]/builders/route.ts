import {
  builders,
  giveRights as rightsContract,
  inviteBuilder as inviteContract,
} from '@/contract/studio/builders';
import { inApplication } from '@/server/studio/answering';
import { buildersOf, giveRights, liftBuilderWaits } from '@/server/studio/builders';
import { invitationsOf, inviteBuilder } from '@/server/studio/invitations';

export const GET = inApplication(builders, async (here) => ({
  builders: await buildersOf(here),
  invited: here.role === 'owner' ? await invitationsOf(here) : [],
}));

export const POST = inApplication(inviteContract, (here, { body }) => inviteBuilder(here, body));

export const PUT = inApplication(rightsContract, async (here, { body: { builder, lift, ...rights } }) => {
  if (Object.keys(rights).length > 0) await giveRights(here, builder, rights);
  if (lift) await liftBuilderWaits(here, builder);
});
