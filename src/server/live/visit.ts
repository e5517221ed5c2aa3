import { and, eq, gt, sql } from 'drizzle-orm';
import { accessOf, compile, viewerOfPerson } from '@/core';
import { type Circumstances, holdsStandIn, SIGNED_OUT } from '@/core/access';
import type { Value } from '@/core/model';
import { addressOf } from '../security/client';
import { database, type Database } from '../database/client';
import { applications, people, sessions, type HeldUnlock, type HeldValue } from '../database/schema';
import { releasedDefinition } from '../releases';
import { personColumns, personOf } from '../people/read';
import type { RecordScope } from '../records/read';
import type { Writer } from '../records/write';
import { hashToken, liveCookie } from '../security/sessions';
import { standIn } from './acting-as';
import { unlocksInForce } from './unlocker';
import type { Visit } from './who-visits';

/** Cookies as Next gives them to pages. */
interface Cookies {
  get(name: string): { readonly value: string } | undefined;
}

/** Who asks for what, as one statement that the database knows by its name: it is asked on every request. */
const whoAsks = (on: Database) =>
  on
    .select({
      applicationId: applications.id,
      release: applications.release,
      person: { ...personColumns, startScreen: people.startScreen },
      session: { values: sessions.values, unlocked: sessions.unlocked },
      standing: { for: sessions.standingFor, until: sessions.standingUntil },
      // One moment for the whole request, taken by the one clock that all processes share; only a sweep's copy has another.
      moment: sql<number>`(extract(epoch from now()) * 1000)::float8 + ${applications.clockAhead}`,
    })
    .from(applications)
    .leftJoin(
      sessions,
      and(
        eq(sessions.tokenHash, sql.placeholder('token')),
        eq(sessions.audience, 'live'),
        eq(sessions.applicationId, applications.id),
        gt(sessions.expiresAt, sql`now()`),
      ),
    )
    .leftJoin(
      people,
      and(
        eq(people.id, sessions.personId),
        eq(people.applicationId, applications.id),
        eq(people.active, true),
        eq(people.confirmed, true),
      ),
    )
    .where(eq(applications.slug, sql.placeholder('slug')))
    .prepare('visit');

const prepared = new WeakMap<Database, ReturnType<typeof whoAsks>>();

/**
 * Who asks for what: the session, the person, their assignments and the release in force are looked up
 * on every request. Undefined where there is no such application, or it was never released.
 */
export async function visit(slug: string, cookies: Cookies): Promise<Visit | undefined> {
  const token = cookies.get((await liveCookie(slug)).name)?.value;
  const on = database();
  const query = prepared.get(on) ?? whoAsks(on);
  prepared.set(on, query);
  const [row] = await query.execute({ slug, token: hashToken(token ?? '') });
  if (!row || row.release === null) return undefined;
  const { applicationId, person } = row;
  const viewer = person ? viewerOfPerson(personOf(person)) : SIGNED_OUT;
  const { moment, release } = row;
  const definition = await releasedDefinition(applicationId, release);
  const place = { applicationId, definition, release, moment };
  const unlocked = await unlocksInForce(place, row.session?.unlocked ?? []);
  const circumstances = circumstancesOf(moment, row.session?.values ?? {}, unlocked);
  const access = accessOf(compile(definition), viewer, circumstances);
  const visit: Visit = {
    applicationId,
    slug,
    name: definition.name,
    release,
    viewer,
    access,
    circumstances,
    unlocked,
    mayStandIn: person !== null && holdsStandIn(access),
    ...(person && { person }),
    ...(token && { token }),
  };
  return row.standing?.for ? standIn(visit, row.standing.for, row.standing.until) : visit;
}

/** What the session holds at this moment: what has ended is as if it had never been. */
function circumstancesOf(
  moment: number,
  held: Readonly<Record<string, HeldValue>>,
  unlocked: readonly HeldUnlock[],
): Circumstances {
  const session: Record<string, Value> = {};
  for (const [id, one] of Object.entries(held)) if (moment < one.until) session[id] = one.value;
  return {
    moment,
    session,
    unlocked: unlocked.map(({ element, record, what }) => ({ element, record, what })),
  };
}

/** Who writes in this visit, for the audit trail. */
export const writerOf = ({ person, standing }: Visit): Writer => ({
  keep: true,
  ...(person && { personId: person.id }),
  ...(standing && { standingIn: standing.id }),
});

/** The live records as the visitor may have them. */
export const scopeOf = ({ applicationId, access, release }: Visit): RecordScope => ({
  applicationId,
  access,
  release,
  kind: 'live',
});

/** Whose work it is that a visit asks for: each has only so much of it at a time. */
export const ownerOfVisit = ({ person }: Visit, request: Request): string =>
  person?.id ?? addressOf(request) ?? '';
