import { and, desc, eq, sql } from 'drizzle-orm';
import { database } from '@/server/database/client';
import { outbox } from '@/server/database/schema';
import { handle, json } from '@/server/http/handle';
import { needPeopleRight } from '@/server/studio/builder';

/** The newest messages that would have been sent, without their links, which are keys. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { applicationId } = await needPeopleRight((await params).app);
  const messages = await database()
    .select({
      id: outbox.id,
      to: outbox.to,
      subject: outbox.subject,
      body: outbox.body,
      hasLink: sql<boolean>`${outbox.link} is not null`,
      at: outbox.at,
    })
    .from(outbox)
    .where(and(eq(outbox.applicationId, applicationId), eq(outbox.forBuilder, false)))
    .orderBy(desc(outbox.at), desc(outbox.id))
    .limit(50);
  return json({ messages });
});
