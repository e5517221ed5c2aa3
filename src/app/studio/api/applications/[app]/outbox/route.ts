import { desc, eq } from 'drizzle-orm';
import { database } from '@/server/database/client';
import { outbox } from '@/server/database/schema';
import { handle, json } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';

/** The newest messages that would have been sent. Owners and editors only: their links confirm accounts. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'change');
  const messages = await database()
    .select({ to: outbox.to, subject: outbox.subject, body: outbox.body, at: outbox.at })
    .from(outbox)
    .where(eq(outbox.applicationId, applicationId))
    .orderBy(desc(outbox.at))
    .limit(50);
  return json({ messages });
});
