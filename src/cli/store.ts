import { and, asc, eq, isNull } from 'drizzle-orm';
import { type Definition, sameJson } from '@/core/model';
import { applications, builders, memberships } from '@/server/database/schema';
import { closeDatabase, database } from '@/server/database/client';
import { change, draftOf } from '@/server/drafts/draft';
import { releasedDefinition, releaseInForce } from '@/server/releases';
import { Refused } from '@/server/http/problem';
import { wrong, WrongInput } from './failure';

/** Does something with the database, and lets go of it. */
export async function withDatabase<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } finally {
    await closeDatabase();
  }
}

export async function applicationCalled(slug: string): Promise<string> {
  const [found] = await database().select().from(applications).where(eq(applications.slug, slug));
  if (found) return found.id;
  const all = await database()
    .select({ slug: applications.slug })
    .from(applications)
    .where(isNull(applications.sweepOf));
  throw new WrongInput([
    wrong(
      'APPLICATION',
      `There is no application ${slug}.`,
      `The applications are: ${all.map((one) => one.slug).join(', ') || 'none'}.`,
    ),
  ]);
}

/** The draft of an application, or what is released of it. */
export const exported = (slug: string, released: boolean): Promise<Definition> =>
  withDatabase(async () => {
    const id = await applicationCalled(slug);
    if (!released) return (await draftOf(id)).definition;
    const release = await releaseInForce(id);
    if (!release)
      throw new WrongInput([
        wrong('--released', `${slug} has not been released.`, 'Export its draft instead.'),
      ]);
    return releasedDefinition(id, release.number);
  });

/**
 * Makes the definition the application's draft, as one edit that can be undone, in the name of one of its
 * builders. Returns the revision, or undefined where nothing differs.
 */
export const imported = (
  slug: string,
  definition: Definition,
  email: string | undefined,
  confirmed?: string,
): Promise<number | undefined> =>
  withDatabase(async () => {
    const id = await applicationCalled(slug);
    if (definition.id !== id)
      throw new WrongInput([
        wrong(
          'id',
          `The file belongs to the application ${definition.id}, not ${id}.`,
          `Change the id in the file to ${id}.`,
        ),
      ]);
    const builder = await builderOf(id, email);
    const draft = await draftOf(id);
    if (sameJson(draft.definition, definition)) return undefined;
    try {
      const edit = { do: 'replace', from: draft.definition, to: definition } as const;
      await change(id, builder, draft.revision, { edit }, { confirmed });
    } catch (error) {
      if (error instanceof Refused && error.code === 'would-widen')
        throw new WrongInput([
          wrong(
            slug,
            error.detail,
            `To confirm exactly this change, add --confirm ${String(error.more.members?.['code'])}.`,
          ),
        ]);
      if (error instanceof Refused)
        throw new WrongInput([wrong(slug, error.detail, 'Export it again and merge your changes.')]);
      throw error;
    }
    return draft.revision + 1;
  });

async function builderOf(applicationId: string, email: string | undefined): Promise<string> {
  const rows = await database()
    .select({ id: builders.id, email: builders.email, role: memberships.role })
    .from(memberships)
    .innerJoin(builders, eq(builders.id, memberships.builderId))
    .where(and(eq(memberships.applicationId, applicationId)))
    .orderBy(asc(builders.createdAt));
  const found = rows.find((one) => one.role !== 'reviewer' && (email === undefined || one.email === email));
  if (!found)
    throw new WrongInput([
      wrong(
        '--as',
        `${email ? `${email} is not a builder who can change this application.` : 'No builder can change this application.'}`,
        'Give the email address of an owner or editor.',
      ),
    ]);
  return found.id;
}
