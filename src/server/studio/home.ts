import { and, asc, eq, sql } from 'drizzle-orm';
import { database } from '../database/client';
import { applications, memberships, releases } from '../database/schema';

/** How long after a builder was last heard of they count as being there. */
const HERE_SECONDS = 75;

/** The applications that a builder may work in, by name, each with how it stands. */
export async function homeOf(builderId: string) {
  return database()
    .select({
      slug: applications.slug,
      name: applications.name,
      role: memberships.role,
      release: applications.release,
      revision: applications.headRevision,
      since: sql<number>`${applications.headRevision} - coalesce(${releases.revision}, 0)`,
      people: sql<number>`(select count(*)::int from people where people.application_id = ${applications.id})`,
      /** Findings that were not set aside, and broken expectations, of the newest revision that was looked through. */
      lookAt: sql<number>`coalesce((
        select (select count(*) from jsonb_array_elements(proofs.findings) found
            where not exists (select from set_aside where set_aside.application_id = proofs.application_id
              and set_aside.key = found ->> 'key' and set_aside.basis = found ->> 'basis'))
          + jsonb_array_length(proofs.broken)
        from proofs where proofs.application_id = ${applications.id}
        order by proofs.revision desc limit 1), 0)::int`,
      /** How many days old the last sign-off is, where that is more than the owner said. */
      overdue: sql<number | null>`(
        select floor(extract(epoch from now() - max(sign_offs.at)) / 86400)::int from sign_offs
        where sign_offs.application_id = ${applications.id}
        having floor(extract(epoch from now() - max(sign_offs.at)) / 86400) > ${applications.remindDays})`,
      lastChange: sql<{ readonly by: string; readonly at: string } | null>`(
        select json_build_object('by', builders.name, 'at', edits.at)
        from edits join builders on builders.id = edits.author
        where edits.application_id = ${applications.id} order by edits.revision desc limit 1)`,
      here: sql<string[]>`array(
        select builders.name from memberships there join builders on builders.id = there.builder_id
        where there.application_id = ${applications.id} and there.builder_id <> ${builderId}
          and there.seen_at > now() - make_interval(secs => ${HERE_SECONDS})
        order by builders.name)`,
    })
    .from(memberships)
    .innerJoin(applications, eq(applications.id, memberships.applicationId))
    .leftJoin(
      releases,
      and(eq(releases.applicationId, applications.id), eq(releases.number, applications.release)),
    )
    .where(eq(memberships.builderId, builderId))
    .orderBy(asc(applications.name), asc(applications.slug));
}

/** Notes that a builder has a bench of an application open. */
export async function noteSeen(applicationId: string, builderId: string): Promise<void> {
  await database()
    .update(memberships)
    .set({ seenAt: sql`now()` })
    .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builderId)));
}
