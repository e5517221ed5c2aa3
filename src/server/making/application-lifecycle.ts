import { eq, sql } from 'drizzle-orm';
import { database } from '../database/client';
import { applications, auditEvents, formerAddresses } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import type { Workplace } from '../studio/builder';
import { requireFree } from './make';

/** Gives an application another address. Who asks for the one that it had is led on. */
export async function changeAddress(
  { applicationId, slug: before, builder }: Workplace,
  slug: string,
): Promise<void> {
  if (slug === before) return;
  await database().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${slug}, 11))`);
    await requireFree(slug, tx, applicationId);
    const [there] = await tx
      .select({ slug: applications.slug })
      .from(applications)
      .where(eq(applications.id, applicationId))
      .for('update');
    if (there?.slug !== before)
      throw new Refused(
        409,
        'moved',
        'Someone else has changed the address in the meantime. Reload the page.',
      );
    await tx.delete(formerAddresses).where(eq(formerAddresses.slug, slug));
    await tx.insert(formerAddresses).values({ slug: before, applicationId });
    await tx.update(applications).set({ slug }).where(eq(applications.id, applicationId));
    await tx.insert(auditEvents).values({
      applicationId,
      builderId: builder.id,
      what: 'address-changed',
      detail: { from: before, to: slug },
    });
  });
}

/**
 * Deletes an application: its definition and releases, its people and their sessions, its records. What happened to it
 * stays in the audit trail. Of two who do so at once, the second is told that it is gone.
 */
export async function deleteApplication({ applicationId, builder }: Workplace, name: string): Promise<void> {
  await database().transaction(async (tx) => {
    const [there] = await tx
      .select({ name: applications.name, slug: applications.slug })
      .from(applications)
      .where(eq(applications.id, applicationId))
      .for('update');
    if (!there) throw notThere();
    if (there.name !== name.trim())
      throw new Refused(422, 'name', 'Nothing was deleted, because the name does not match.', {
        errors: [{ field: 'name', detail: `Type the name exactly: ${there.name}` }],
      });
    // Records are most of it, and are found by their key.
    await tx.execute(sql`set local statement_timeout = '120s'`);
    await tx.delete(applications).where(eq(applications.id, applicationId));
    await tx.insert(auditEvents).values({
      applicationId,
      builderId: builder.id,
      what: 'application-deleted',
      detail: { slug: there.slug },
    });
  });
}
