import { and, desc, eq } from 'drizzle-orm';
import { database } from '@/server/database/client';
import { visit } from '@/server/live/visit';
import type { Visit } from '@/server/live/who-visits';
import { liveCookie, openSession } from '@/server/security/sessions';
import type { Assignment } from '@/core/access';
import { assignments, installation, outbox, people } from '@/server/database/schema';

process.env['PUBLIC_URL'] ??= 'http://127.0.0.1:4620';

/** What every installation has. */
export async function installed(): Promise<void> {
  await database().insert(installation).values({ id: 1, name: 'test' }).onConflictDoNothing();
}

/** A person who counts as somebody. Returns their id. */
export async function person(
  applicationId: string,
  email: string,
  given: readonly Assignment[] = [],
  more: Partial<typeof people.$inferInsert> = {},
): Promise<string> {
  const [row] = await database()
    .insert(people)
    .values({ applicationId, email, name: email, passwordHash: 'none', ...more })
    .returning();
  const id = row?.id ?? '';
  for (const { role: roleId, unit: unitId } of given)
    await database().insert(assignments).values({ personId: id, roleId, unitId });
  return id;
}

/** A visit of somebody who has signed in; of nobody without an id. */
export async function visitOf(slug: string, personId?: string): Promise<Visit> {
  const { name } = await liveCookie(slug);
  const token =
    personId === undefined
      ? undefined
      : await openSession({ audience: 'live', applicationId: slug, personId });
  return visitWith(slug, name, token);
}

/** A visit with the session's token, as a browser sends it again. */
export async function again({ slug, token }: Visit): Promise<Visit> {
  return visitWith(slug, (await liveCookie(slug)).name, token);
}

async function visitWith(slug: string, cookie: string, token: string | undefined): Promise<Visit> {
  const found = await visit(slug, {
    get: (name) => (name === cookie && token !== undefined ? { value: token } : undefined),
  });
  if (!found) throw new Error(`There is no application ${slug}`);
  return found;
}

/** The key in the newest message to an address. */
export async function keyTo(applicationId: string, to: string): Promise<string> {
  const [message] = await database()
    .select()
    .from(outbox)
    .where(and(eq(outbox.applicationId, applicationId), eq(outbox.to, to)))
    .orderBy(desc(outbox.at));
  return new URL(message?.link ?? 'http://none').searchParams.get('token') ?? '';
}

/** Everybody has opened their link. */
export async function confirmAll(applicationId: string): Promise<void> {
  await database().update(people).set({ confirmed: true }).where(eq(people.applicationId, applicationId));
}
