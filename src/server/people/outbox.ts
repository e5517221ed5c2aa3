import { and, desc, eq, sql } from 'drizzle-orm';
import { database } from '../database/client';
import { outbox } from '../database/schema';

/** The newest messages that would have been sent to an application's people, without their links, which are keys. */
export const messagesIn = (applicationId: string) =>
  database()
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
