import { inArray, and, eq } from 'drizzle-orm';
import { accessOf, compile } from '@/core';
import { type KnownRecord, type Person, SIGNED_OUT, viewerOfKey } from '@/core/access';
import type { ExpectationWorld, Expectation } from '@/core/expectations';
import { type Definition, treeOf } from '@/core/model';
import { database } from '../database/client';
import { records } from '../database/schema';
import { keptViewers } from '../look/viewers';
import { knownRecords } from '../records/read';

/** The viewers and sample records of which expectations speak, read once. */
export async function askedBy(
  applicationId: string,
  definition: Definition,
  people: readonly Person[],
  expectations: readonly Pick<Expectation, 'viewer' | 'record'>[],
): Promise<ExpectationWorld> {
  const kept = expectations.some(({ viewer }) => viewer.startsWith('kept:'))
    ? await keptViewers(applicationId)
    : [];
  const known = {
    person: (id: string) => people.find((one) => one.id === id),
    kept: (id: string) => kept.find((one) => one.id === id)?.viewer,
  };
  const found = await recordsFor(applicationId, definition, expectations);
  return {
    viewer: (key) => viewerOfKey(definition, known, key),
    record: (entity, id) => found.get(`${entity} ${id}`),
    now: Date.now(),
  };
}

async function recordsFor(
  applicationId: string,
  definition: Definition,
  expectations: readonly Pick<Expectation, 'record'>[],
): Promise<Map<string, KnownRecord>> {
  const asked = expectations.flatMap(({ record }) => record ?? []);
  const scope = {
    applicationId,
    kind: 'sample',
    access: accessOf(compile(definition), SIGNED_OUT, { moment: 0 }),
  } as const;
  const found = new Map<string, KnownRecord>();
  for (const id of new Set(asked.map(({ entity }) => entity))) {
    const entity = treeOf(definition).entityOf(id);
    if (!entity) continue;
    const ids = asked.filter((one) => one.entity === id).map((one) => one.id);
    const stored = await database()
      .select({ id: records.id, version: records.version, values: records.data })
      .from(records)
      .where(
        and(
          eq(records.applicationId, applicationId),
          eq(records.kind, 'sample'),
          eq(records.entity, id),
          inArray(records.id, [...new Set(ids)]),
        ),
      );
    for (const one of await knownRecords(scope, entity, stored)) found.set(`${id} ${one.id}`, one);
  }
  return found;
}
