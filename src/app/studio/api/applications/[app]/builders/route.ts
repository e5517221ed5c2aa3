import { and, asc, eq } from 'drizzle-orm';
import * as yup from 'yup';
import { database } from '@/server/database/client';
import { auditEvents, builders, LIVE_RIGHTS, memberships } from '@/server/database/schema';
import { handle, json, nothing, readBody } from '@/server/http/handle';
import { notThere, Refused } from '@/server/http/problem';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };

/** The builders of the application, and what each may do with the live records. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const rows = await database()
    .select({ id: builders.id, name: builders.name, role: memberships.role, live: memberships.live })
    .from(memberships)
    .innerJoin(builders, eq(builders.id, memberships.builderId))
    .where(eq(memberships.applicationId, applicationId))
    .orderBy(asc(builders.name));
  return json({ builders: rows });
});

const body = yup
  .object({ builder: yup.string().uuid().required(), live: yup.string().oneOf(LIVE_RIGHTS).required() })
  .noUnknown();

/** Gives a builder a right to the live records, or takes it. The owner's to do. */
export const PUT = handle<Params>(async (request, { params }) => {
  const { applicationId, role, builder: own } = await needWorkplace((await params).app, 'change');
  if (role !== 'owner')
    throw new Refused(403, 'owner', 'Only the owner of the application gives rights to its live records.');
  const { builder, live } = await readBody(request, body);
  await database().transaction(async (tx) => {
    const changed = await tx
      .update(memberships)
      .set({ live })
      .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builder)))
      .returning({ id: memberships.builderId });
    if (changed.length === 0) throw notThere();
    await tx
      .insert(auditEvents)
      .values({ applicationId, builderId: own.id, what: 'live-right', detail: { builder, live } });
  });
  return nothing();
});
