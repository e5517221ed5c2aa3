import { desc, eq } from 'drizzle-orm';
import { database } from '../database/client';
import { proofs } from '../database/schema';

/** What is kept of the newest revision that was looked through; undefined where none was. */
export async function newestProof(applicationId: string): Promise<typeof proofs.$inferSelect | undefined> {
  const [row] = await database()
    .select()
    .from(proofs)
    .where(eq(proofs.applicationId, applicationId))
    .orderBy(desc(proofs.revision))
    .limit(1);
  return row;
}
