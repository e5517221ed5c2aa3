import { and, eq, gt, sql } from 'drizzle-orm';
import { cookies } from 'next/headers';
import { cache } from 'react';
import { database } from '../database/client';
import { applications, builders, memberships, sessions, type LiveRight } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { hashToken, studioCookie } from '../security/sessions';

export interface Builder {
  readonly id: string;
  readonly name: string;
  readonly token: string;
}

/** A builder with an application that they belong to. */
export interface Workplace {
  readonly builder: Builder;
  readonly applicationId: string;
  readonly slug: string;
  readonly name: string;
  readonly role: 'owner' | 'editor' | 'reviewer';
  readonly pins: readonly string[];
  /** What they may do with the live records in the look bench. */
  readonly live: LiveRight;
  /** May they manage its people? */
  readonly people: boolean;
  /** May they release? */
  readonly releases: boolean;
}

/** Releasing is a right of its own, which the owners give, and have. */
export const mayRelease = sql<boolean>`(${memberships.role} = 'owner' or (${memberships.role} = 'editor' and ${memberships.releases}))`;

/** The builder whose session the request carries; looked up on every request. */
export const thisBuilder = cache(async (): Promise<Builder | undefined> => {
  const token = (await cookies()).get((await studioCookie()).name)?.value;
  if (token === undefined) return undefined;
  const [row] = await database()
    .select({ id: builders.id, name: builders.name })
    .from(sessions)
    .innerJoin(builders, eq(builders.id, sessions.builderId))
    .where(
      and(
        eq(sessions.tokenHash, hashToken(token)),
        eq(sessions.audience, 'studio'),
        gt(sessions.expiresAt, sql`now()`),
      ),
    );
  return row && { ...row, token };
});

/** Does the session still hold, and is its builder still one of the application? For what goes on after it was asked for. */
export async function isStillBuilder(applicationId: string, { id, token }: Builder): Promise<boolean> {
  const held = and(
    eq(sessions.tokenHash, hashToken(token)),
    eq(sessions.builderId, id),
    gt(sessions.expiresAt, sql`now()`),
  );
  const member = and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, id));
  const [row] = await database()
    .select({ id: sessions.builderId })
    .from(sessions)
    .innerJoin(memberships, member)
    .where(held);
  return row !== undefined;
}

/** The applications that a builder belongs to, by name. */
export async function applicationsOf(builderId: string): Promise<{ slug: string; name: string }[]> {
  return database()
    .select({ slug: applications.slug, name: applications.name })
    .from(applications)
    .innerJoin(memberships, eq(memberships.applicationId, applications.id))
    .where(eq(memberships.builderId, builderId))
    .orderBy(applications.name);
}

/** The application as this builder's, or undefined: no such one, or not theirs. */
export const workplaceOf = cache(async (builder: Builder, slug: string): Promise<Workplace | undefined> => {
  const [row] = await database()
    .select({
      applicationId: applications.id,
      slug: applications.slug,
      name: applications.name,
      role: memberships.role,
      pins: memberships.pins,
      live: memberships.live,
      people: memberships.people,
      releases: mayRelease,
    })
    .from(applications)
    .innerJoin(memberships, eq(memberships.applicationId, applications.id))
    .where(and(eq(applications.slug, slug), eq(memberships.builderId, builder.id)));
  return row && { builder, ...row };
});

/** The id of a builder's application by its address; undefined where there is none, or it is not theirs. */
export async function workplaceIn(builderId: string, slug: string): Promise<string | undefined> {
  const [row] = await database()
    .select({ applicationId: applications.id })
    .from(applications)
    .innerJoin(memberships, eq(memberships.applicationId, applications.id))
    .where(and(eq(applications.slug, slug), eq(memberships.builderId, builderId)));
  return row?.applicationId;
}

/** For route handlers: the builder whose session it is, or a refusal. */
export async function needBuilder(): Promise<Builder> {
  const builder = await thisBuilder();
  if (builder) return builder;
  throw new Refused(
    401,
    'not-signed-in',
    'Your session has expired. Sign in again. Your saved changes are safe.',
  );
}

/** For route handlers: the workplace, or a refusal. Reviewers read all and change nothing. */
export async function needWorkplace(slug: string, to: 'read' | 'change'): Promise<Workplace> {
  const builder = await needBuilder();
  const workplace = await workplaceOf(builder, slug);
  if (!workplace) throw notThere();
  if (to === 'change' && workplace.role === 'reviewer')
    throw new Refused(
      403,
      'reviewer',
      'You are a reviewer of this application, so you can see everything but cannot make changes.',
    );
  return workplace;
}

/** For route handlers that only an owner may ask: `what` says what is theirs to do. */
export async function needOwner(slug: string, what: string): Promise<Workplace> {
  const workplace = await needWorkplace(slug, 'change');
  if (workplace.role === 'owner') return workplace;
  throw new Refused(403, 'owner', `Only an owner of the application ${what}.`);
}

/**
 * For route handlers that change people, or read what goes to them: a right of its own, which the owner gives. The
 * people of an application are live, whatever the builder may do with its definition.
 */
export async function needPeopleRight(slug: string): Promise<Workplace> {
  const workplace = await needWorkplace(slug, 'read');
  if (!workplace.people)
    throw new Refused(
      403,
      'people',
      'You can see the people of this application but cannot manage them. Ask the owner for permission.',
    );
  return workplace;
}

/** For route handlers that change what is in force. */
export async function needReleaseRight(slug: string): Promise<Workplace> {
  const workplace = await needWorkplace(slug, 'change');
  if (!workplace.releases)
    throw new Refused(
      403,
      'releases',
      'You may change the draft of this application, not release it. Its owner can give you that right.',
    );
  return workplace;
}
