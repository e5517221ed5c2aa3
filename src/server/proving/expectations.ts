import { and, eq, inArray, sql } from 'drizzle-orm';
import { viewerKey } from '@/core';
import { idInKey, kindsOf, readMade } from '@/core/access';
import { answerTo, type Expectation, readLevels } from '@/core/expectations';
import { type Definition, treeOf } from '@/core/model';
import { canonicalJson } from '@/core/signing';
import { againSchema, type NewExpectation, wantedSchema } from '@/contract/schemas/proving';
import type { ListedExpectation } from '@/contract/studio/proving';
import { database } from '../database/client';
import { builders, expectations, people } from '../database/schema';
import { isUuid } from '../database/uuid';
import { keptViewers } from '../look/viewers';
import { draftOf } from '../drafts/draft';
import { parseBody } from '../http/body';
import { Refused } from '../http/problem';
import { notifyChange } from '../notifications/notices';
import { peopleOf } from '../people/read';
import { askedBy } from './asked';

/** So many an application may have. */
const MOST = 20_000;

/** Those of an application, in the order in which they were made. */
export async function listExpectations(applicationId: string): Promise<ListedExpectation[]> {
  const rows = await database()
    .select({
      id: expectations.id,
      expectation: expectations.expectation,
      by: builders.name,
      at: expectations.at,
    })
    .from(expectations)
    .leftJoin(builders, eq(builders.id, expectations.author))
    .where(eq(expectations.applicationId, applicationId))
    .orderBy(expectations.at, expectations.id);
  const names = await namesOf(
    applicationId,
    rows.map(({ expectation }) => expectation.viewer),
  );
  return rows.map(({ id, expectation, by, at }) => ({
    id,
    ...expectation,
    viewerName: names(expectation.viewer),
    by,
    at: at.toISOString(),
  }));
}

/** What viewers are called in the draft, by their keys. */
async function namesOf(
  applicationId: string,
  keys: readonly string[],
): Promise<(key: string) => string | undefined> {
  const { definition } = await draftOf(applicationId);
  const ids = keys.flatMap((key) => idInKey('person', key) ?? []).filter(isUuid);
  const persons =
    ids.length > 0
      ? await database()
          .select({ id: people.id, name: people.name })
          .from(people)
          .where(and(eq(people.applicationId, applicationId), inArray(people.id, [...new Set(ids)])))
      : [];
  const kept = keys.some((key) => idInKey('kept', key)) ? await keptViewers(applicationId) : [];
  const names = new Map([
    ...kindsOf(definition).map(({ key, name }) => [key, name] as const),
    ...persons.map(({ id, name }) => [viewerKey('person', id), name] as const),
    ...kept.map(({ id, name }) => [viewerKey('kept', id), name] as const),
  ]);
  return (key) => names.get(key) ?? madeInWords(definition, key);
}

/** "Made up: Registrar, Curator": a viewer who is put together, by the roles. */
function madeInWords({ roles }: Definition, key: string): string | undefined {
  const json = idInKey('made', key);
  const made = json === undefined ? undefined : readMade(json);
  if (!made) return undefined;
  const held = made.assignments.flatMap(({ role }) => roles.find(({ id }) => id === role)?.name ?? []);
  return `Custom: ${held.join(', ') || 'no role'}`;
}

/** Keeps expectations under a name, as they were sent. */
export const addAsSent = async (
  applicationId: string,
  builderId: string,
  body: string,
): Promise<{ readonly added: number }> => ({
  added: await addExpectations(applicationId, builderId, [parseBody(body, wantedSchema)]),
});

/** What there is now is expected from now on, as it was sent. */
export async function expectAsSent(applicationId: string, builderId: string, body: string): Promise<void> {
  const asked = parseBody(body, againSchema);
  await expectWhatIs(applicationId, builderId, asked.ids, asked.reason);
}

/**
 * Keeps expectations; one that cannot be answered now is refused with its place, and then none is kept. What is expected
 * already, to the letter, is not kept twice. Returns how many are new.
 */
export async function addExpectations(
  applicationId: string,
  builderId: string,
  wanted: readonly NewExpectation[],
): Promise<number> {
  const { definition } = await draftOf(applicationId);
  const all = wanted.flatMap(({ of, ...rest }) => of.map((one) => ({ ...rest, ...one })));
  const asked = await askedBy(applicationId, definition, await peopleOf(applicationId), all);
  const kept = all.map(({ expect, reason, ...rest }, n): Expectation => {
    const now = answerTo(definition, rest, asked);
    if (!now)
      throw new Refused(
        422,
        'expectation',
        `Nothing was saved, because ${missing(definition, rest, asked)} does not exist.`,
        {
          members: { at: n },
        },
      );
    return { ...rest, name: rest.name.trim(), reason, expect: (expect && readLevels(expect)) || now };
  });
  return database().transaction(async (tx) => {
    // Of two imports at once, the second finds what the first has kept.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${applicationId}, 13))`);
    const had = await tx
      .select({ expectation: expectations.expectation })
      .from(expectations)
      .where(eq(expectations.applicationId, applicationId));
    const known = new Set(had.map(({ expectation }) => canonicalJson(expectation)));
    const added = kept.filter((one) => {
      const text = canonicalJson(one);
      return !known.has(text) && known.add(text);
    });
    if (had.length + added.length > MOST)
      throw new Refused(422, 'too-many', `An application can have at most ${MOST} expectations.`);
    for (let n = 0; n < added.length; n += 1000)
      await tx
        .insert(expectations)
        .values(
          added.slice(n, n + 1000).map((expectation) => ({ applicationId, expectation, author: builderId })),
        );
    if (added.length > 0) await notifyChange(tx, applicationId, 'expected');
    return added.length;
  });
}

function missing(
  definition: Parameters<typeof answerTo>[0],
  { viewer, element, record }: Pick<Expectation, 'viewer' | 'element' | 'record'>,
  asked: Parameters<typeof answerTo>[2],
): string {
  if (!asked.viewer(viewer)) return `the viewer ${viewer}`;
  if (!treeOf(definition).get(element)) return `the element ${element}`;
  return `the record ${record?.id ?? ''}`;
}

/** Takes expectations away. */
export async function removeExpectations(applicationId: string, ids: readonly string[]): Promise<void> {
  await database().transaction(async (tx) => {
    await tx
      .delete(expectations)
      .where(and(eq(expectations.applicationId, applicationId), inArray(expectations.id, [...ids])));
    await notifyChange(tx, applicationId, 'expected');
  });
}

/** What is expected becomes what there is in the draft now, with a new reason where one is given. */
export async function expectWhatIs(
  applicationId: string,
  builderId: string,
  ids: readonly string[],
  reason: string | undefined,
): Promise<void> {
  const { definition } = await draftOf(applicationId);
  const chosen = (await listExpectations(applicationId)).filter(({ id }) => ids.includes(id));
  const asked = await askedBy(applicationId, definition, await peopleOf(applicationId), chosen);
  await database().transaction(async (tx) => {
    for (const { id, by: _, at: __, viewerName: ___, ...one } of chosen) {
      const expect = answerTo(definition, one, asked);
      if (!expect)
        throw new Refused(
          422,
          'expectation',
          `“${one.name}” refers to something that no longer exists. Delete the expectation instead.`,
        );
      await tx
        .update(expectations)
        .set({
          expectation: { ...one, expect, ...(reason !== undefined && { reason }) },
          author: builderId,
          at: new Date(),
        })
        .where(and(eq(expectations.applicationId, applicationId), eq(expectations.id, id)));
    }
    await notifyChange(tx, applicationId, 'expected');
  });
}
