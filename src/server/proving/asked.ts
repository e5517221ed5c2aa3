import { inArray, and, eq } from 'drizzle-orm';
import { accessOf, compile, readViewerKey, viewerOfPerson, viewerOfRole } from '@/core';
import {
  type KnownRecord,
  type Person,
  SIGNED_IN,
  SIGNED_OUT,
  type Viewer,
  viewerOfGroup,
} from '@/core/access';
import type { Asked, Expectation } from '@/core/expectations';
import { type Definition, treeOf } from '@/core/model';
import { database } from '../database/client';
import { records } from '../database/schema';
import { type KeptViewer, keptViewers, readMade, viewerOfMade } from '../look/viewers';
import { knownRecords } from '../records/read';

/** The viewers and sample records of which expectations speak, read once. */
export async function askedBy(
  applicationId: string,
  definition: Definition,
  people: readonly Person[],
  expectations: readonly Pick<Expectation, 'viewer' | 'record'>[],
): Promise<Asked> {
  const kept = expectations.some(({ viewer }) => viewer.startsWith('kept:'))
    ? await keptViewers(applicationId)
    : [];
  const found = await recordsFor(applicationId, definition, expectations);
  return {
    viewer: (key) => viewerFor(definition, people, kept, key),
    record: (entity, id) => found.get(`${entity} ${id}`),
    now: Date.now(),
  };
}

function viewerFor(
  definition: Definition,
  people: readonly Person[],
  kept: readonly KeptViewer[],
  key: string,
): Viewer | undefined {
  const read = readViewerKey(key);
  switch (read?.kind) {
    case 'signed-out':
      return SIGNED_OUT;
    case 'signed-in':
      return SIGNED_IN;
    case 'role':
      return definition.roles.some(({ id }) => id === read.id) ? viewerOfRole(read.id) : undefined;
    case 'group':
      return definition.groups.some(({ id }) => id === read.id) ? viewerOfGroup(read.id) : undefined;
    case 'person': {
      const person = people.find(({ id }) => id === read.id);
      return person && viewerOfPerson(person);
    }
    case 'kept': {
      const made = kept.find(({ id }) => id === read.id);
      return made && viewerOfMade(definition, made.viewer);
    }
    case 'made': {
      const made = readMade(read.id);
      return made && viewerOfMade(definition, made);
    }
    case undefined:
      return undefined;
  }
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
