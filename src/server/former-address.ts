import { eq } from 'drizzle-orm';
import { notFound, redirect } from 'next/navigation';
import { database } from './database/client';
import { applications, formerAddresses } from './database/schema';

/** The address that an application has now which had this one before; undefined where none had. */
export async function addressNow(slug: string): Promise<string | undefined> {
  const [row] = await database()
    .select({ slug: applications.slug })
    .from(formerAddresses)
    .innerJoin(applications, eq(applications.id, formerAddresses.applicationId))
    .where(eq(formerAddresses.slug, slug));
  return row?.slug;
}

/** Leads a page of an application on to the address that it has now; where there is none, there is no such page. */
export async function ledOn(slug: string, parts: readonly string[]): Promise<never> {
  const now = await addressNow(slug);
  if (now === undefined) notFound();
  redirect(['/live', now, ...parts.map(encodeURIComponent)].join('/'));
}
