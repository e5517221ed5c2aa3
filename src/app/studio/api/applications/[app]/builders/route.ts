import * as yup from 'yup';
import { LIVE_RIGHTS } from '@/server/database/schema';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { needOwner, needWorkplace } from '@/server/studio/builder';
import { BUILDER_ROLES, buildersOf, giveRights, liftBuilderWaits } from '@/server/studio/builders';
import { invitationsOf, inviteBuilder } from '@/server/studio/invitations';

type Params = { params: Promise<{ app: string }> };

/** The builders of the application, and what each may do; for its owners, also who was let in and is not here yet. */
export const GET = handle<Params>(async (_, { params }) => {
  const workplace = await needWorkplace((await params).app, 'read');
  const invited = workplace.role === 'owner' ? await invitationsOf(workplace) : [];
  return json({ builders: await buildersOf(workplace), invited });
});

const invited = yup
  .object({
    email: yup.string().max(300).default(''),
    name: yup.string().max(300).default(''),
    role: yup.string().oneOf(BUILDER_ROLES).required(),
  })
  .noUnknown();

/** Lets somebody in as a builder, by a link that is sent to their address. */
export const POST = handle<Params>(async (request, { params }) => {
  const workplace = await needOwner((await params).app, 'lets builders in');
  await inviteBuilder(workplace, await readBody(request, invited));
  return nothing();
});

const body = yup
  .object({
    builder: yup.string().uuid().required(),
    live: yup.string().oneOf(LIVE_RIGHTS),
    people: yup.boolean(),
    releases: yup.boolean(),
    /** Lift what makes them wait to sign in, after wrong tries. */
    lift: yup.boolean(),
  })
  .noUnknown();

/** Gives a builder rights to what is live, or takes them. The owner's to do. */
export const PUT = handle<Params>(async (request, { params }) => {
  const workplace = await needOwner((await params).app, 'gives rights to what is live');
  const { builder, lift, ...rights } = await readBody(request, body);
  if (Object.keys(rights).length > 0) await giveRights(workplace, builder, rights);
  if (lift) await liftBuilderWaits(workplace, builder);
  return nothing();
});
