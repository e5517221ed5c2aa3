import { and, asc, eq, ne, sql } from 'drizzle-orm';
import { accessOf, viewerOfPerson } from '@/core';
import { type Person, ActingAccess, standsInFull } from '@/core/access';
import { database } from '../database/client';
import { isUuid } from '../database/uuid';
import { auditEvents, people, sessions } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { personColumns, personOf } from '../people/read';
import { hashToken } from '../security/sessions';
import type { Visit } from './who-visits';

/**
 * The visit as the person whom the session looks as: every decision is the lower of the two people's, or
 * that person's alone where the builder allows all of their roles to be stood in for in full. What gave the
 * right to it is looked up every time; if it is gone, or the time is over, the stand-in has ended.
 */
export async function standIn(own: Visit, personId: string, until: Date | null): Promise<Visit> {
  const { access, person, circumstances } = own;
  const rule = access.compiled.definition.standIn;
  const found = await activePerson(own.applicationId, personId);
  if (!person || !rule || !own.mayStandIn || !found || !until || until.getTime() <= circumstances.moment) {
    await endStandIn(own, personId, 'stand-in-ended');
    return own;
  }
  const viewer = viewerOfPerson(found.person);
  // Nothing that the other person's own session holds is known here.
  const at = { moment: circumstances.moment };
  const theirs = accessOf(access.compiled, viewer, at);
  const inFull = standsInFull(access, found.person, circumstances.moment);
  return {
    ...own,
    viewer,
    access: new ActingAccess(theirs, inFull ? undefined : access, !rule.changes),
    circumstances: at,
    unlocked: [],
    person: { id: personId, name: found.person.name, startScreen: found.startScreen },
    standing: {
      id: person.id,
      name: person.name,
      until: until.getTime(),
      changes: rule.changes,
      full: inFull,
    },
    mayStandIn: true,
  };
}

async function activePerson(
  applicationId: string,
  id: string,
): Promise<{ person: Person; startScreen: string | null } | undefined> {
  const [row] = await database()
    .select({ ...personColumns, startScreen: people.startScreen })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.id, id)));
  const person = row && personOf(row);
  return person?.active ? { person, startScreen: row?.startScreen ?? null } : undefined;
}

/** Who somebody may look as: everybody active but themselves. The first few whose name has those words. */
export async function peopleToStandFor(
  visit: Visit,
  q: string,
): Promise<{ id: string; name: string; roles: string[] }[]> {
  const self = visit.standing?.id ?? visit.person?.id;
  if (!visit.mayStandIn || !self) throw notThere();
  const words = q.trim().toLowerCase();
  const rows = await database()
    .select(personColumns)
    .from(people)
    .where(
      and(
        eq(people.applicationId, visit.applicationId),
        eq(people.active, true),
        eq(people.confirmed, true),
        ne(people.id, self),
        words ? sql`strpos(lower(${people.name}), ${words}) > 0` : undefined,
      ),
    )
    .orderBy(asc(people.name), asc(people.id))
    .limit(30);
  const { roles } = visit.access.compiled.definition;
  return rows.map(personOf).map(({ id, name, assignments }) => ({
    id,
    name,
    roles: roles.filter((role) => assignments.some((one) => one.role === role.id)).map((role) => role.name),
  }));
}

/**
 * Begins to look as another person, or goes on to the next. The right to it is always that of who really is
 * there: nobody stands in from within a stand-in.
 */
export async function startStandIn(visit: Visit, personId: string): Promise<void> {
  const { token, applicationId, standing, person } = visit;
  const self = standing?.id ?? person?.id;
  const rule = visit.access.compiled.definition.standIn;
  if (!visit.mayStandIn || !rule || !self || !token) throw notThere();
  const found = isUuid(personId) ? await activePerson(applicationId, personId) : undefined;
  if (!found || personId === self) throw notThere();
  if (standing && person) await endStandIn(visit, person.id, 'stand-in-stopped');
  await database().transaction(async (tx) => {
    await tx
      .update(sessions)
      .set({
        standingFor: personId,
        standingUntil: sql`now() + make_interval(mins => ${rule.minutes})`,
      })
      .where(eq(sessions.tokenHash, hashToken(token)));
    await tx.insert(auditEvents).values({
      applicationId,
      personId,
      standingIn: self,
      what: 'stand-in-started',
      detail: { minutes: rule.minutes },
    });
  });
}

/** Goes back to oneself. */
export async function stopStandIn(visit: Visit): Promise<void> {
  if (visit.standing && visit.person) await endStandIn(visit, visit.person.id, 'stand-in-stopped');
}

async function endStandIn(
  { token, applicationId, standing, person }: Visit,
  personId: string,
  what: 'stand-in-stopped' | 'stand-in-ended',
): Promise<void> {
  if (!token) return;
  await database().transaction(async (tx) => {
    const ended = await tx
      .update(sessions)
      .set({ standingFor: null, standingUntil: null })
      .where(and(eq(sessions.tokenHash, hashToken(token)), eq(sessions.standingFor, personId)))
      .returning({ token: sessions.tokenHash });
    // Of two requests at once, one ends it.
    if (ended.length > 0)
      await tx
        .insert(auditEvents)
        .values({ applicationId, personId, standingIn: standing?.id ?? person?.id ?? null, what });
  });
}

/** In a stand-in, keeps in the audit trail what was looked at or done, under both names. */
export async function auditStandIn(visit: Visit, what: string, address: string): Promise<void> {
  if (!visit.standing || !visit.person) return;
  await database()
    .insert(auditEvents)
    .values({
      applicationId: visit.applicationId,
      personId: visit.person.id,
      standingIn: visit.standing.id,
      what,
      detail: { address: address.slice(0, 500) },
    });
}

/** For what people do as themselves only: their account, other people, opening something for a while. */
export function requireOneself({ standing, person }: Visit): void {
  if (standing)
    throw new Refused(
      403,
      'standing-in',
      `You cannot do this while you are acting as ${person?.name ?? 'someone else'}. Stop acting as them first.`,
    );
}
