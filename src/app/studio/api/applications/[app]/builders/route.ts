import { and, eq } from 'drizzle-orm';
import * as yup from 'yup';
import { database } from '@/server/database/client';
import { auditEvents, builders, LIVE_RIGHTS, memberships } from '@/server/database/schema';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { liftWaits, studioAccount } from '@/server/security/attempts';
import { needOwner, needWorkplace } from '@/server/studio/builder';
import { BUILDER_ROLES, buildersOf } from '@/server/studio/builders';
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

/** Lets somebody in as a builder; answers with the link to send them. */
export const POST = handle<Params>(async (request, { params }) => {
  const workplace = await needOwner((await params).app, 'lets builders in');
  return json(await inviteBuilder(workplace, await readBody(request, invited)), { status: 201 });
});

const body = yup
  .object({
    builder: yup.string().uuid().required(),
    live: yup.string().oneOf(LIVE_RIGHTS),
    people: yup.boolean(),
    /** Lift what makes them wait to sign in, after wrong tries. */
    lift: yup.boolean(),
  })
  .noUnknown();

/** Gives a builder rights to the live records and the people, or takes them. The owner's to do. */
export const PUT = handle<Params>(async (request, { params }) => {
  const { applicationId, builder: own } = await needOwner((await params).app, 'gives rights to what is live');
  const { builder, live, people, lift } = await readBody(request, body);
  await database().transaction(async (tx) => {
    const [changed] = await tx
      .select({ email: builders.email })
      .from(memberships)
      .innerJoin(builders, eq(builders.id, memberships.builderId))
      .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builder)))
      .for('update', { of: memberships });
    if (!changed) throw notThere();
    const rights = { ...(live !== undefined && { live }), ...(people !== undefined && { people }) };
    if (Object.keys(rights).length > 0)
      await tx
        .update(memberships)
        .set(rights)
        .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builder)));
    if (lift) await liftWaits(studioAccount(changed.email), tx);
    await tx.insert(auditEvents).values({
      applicationId,
      builderId: own.id,
      what: lift ? 'waits-lifted' : 'live-right',
      detail: {
        builder,
        ...(live !== undefined && { live }),
        ...(people !== undefined && { people: String(people) }),
      },
    });
  });
  return nothing();
});
