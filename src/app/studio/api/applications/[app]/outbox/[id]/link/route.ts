import { and, eq } from 'drizzle-orm';
import { database } from '@/server/database/client';
import { auditEvents, outbox } from '@/server/database/schema';
import { isUuid } from '@/server/database/uuid';
import { handle, json } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { needPeopleRight } from '@/server/studio/builder';

/** Shows the link of one message. Whoever reads it could open it, so each time is in the audit trail. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId, builder, role } = await needPeopleRight(app);
  if (!isUuid(id)) throw notThere();
  const link = await database().transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(outbox)
      .where(and(eq(outbox.applicationId, applicationId), eq(outbox.id, id)));
    if (!row?.link || (row.ownersOnly && role !== 'owner')) throw notThere();
    await tx
      .insert(auditEvents)
      .values({ applicationId, builderId: builder.id, what: 'link-shown', detail: { to: row.to } });
    return row.link;
  });
  return json({ link });
});
