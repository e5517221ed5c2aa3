import { asc, and, eq } from 'drizzle-orm';
import { readViewerKey, viewerOfPerson, viewerOfRole } from '@/core';
import {
  type KeptViewer,
  type MadeViewer,
  readMade,
  SIGNED_IN,
  SIGNED_OUT,
  type Viewer,
  viewerOfGroup,
  viewerOfMade,
} from '@/core/access';
import type { Definition } from '@/core/model';
import { database } from '../database/client';
import { isUuid } from '../database/uuid';
import { madeViewers, people } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { personColumns, personOf } from '../people/read';

/** A viewer that a key names, with the start screen of their own where it is a person. */
export interface Named {
  readonly viewer: Viewer;
  readonly name: string;
  readonly startScreen?: string | undefined;
}

/** The viewer that a key names. A key that names nobody is as an address that does not exist. */
export async function viewerByKey(
  applicationId: string,
  definition: Definition,
  key: string,
): Promise<Named> {
  const read = readViewerKey(key);
  const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
    list.find((one) => one.id === id)?.name ?? id;
  switch (read?.kind) {
    case 'signed-out':
      return { viewer: SIGNED_OUT, name: 'Signed out' };
    case 'signed-in':
      return { viewer: SIGNED_IN, name: 'Signed in' };
    case 'role':
      return { viewer: viewerOfRole(read.id), name: nameIn(definition.roles, read.id) };
    case 'group':
      return { viewer: viewerOfGroup(read.id), name: nameIn(definition.groups, read.id) };
    case 'person':
      return personByKey(applicationId, read.id);
    case 'kept': {
      const kept = (await keptViewers(applicationId)).find((one) => one.id === read.id);
      if (!kept) throw notThere();
      return { viewer: viewerOfMade(definition, kept.viewer), name: kept.name };
    }
    case 'made': {
      const made = readMade(read.id);
      if (!made) throw new Refused(422, 'viewer', 'The custom viewer in this address is not valid.');
      return { viewer: viewerOfMade(definition, made), name: 'Custom viewer' };
    }
    case undefined:
      throw notThere();
  }
}

async function personByKey(applicationId: string, id: string): Promise<Named> {
  if (!isUuid(id)) throw notThere();
  const [row] = await database()
    .select({ ...personColumns, startScreen: people.startScreen })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.id, id)));
  if (!row) throw notThere();
  const person = personOf(row);
  return { viewer: viewerOfPerson(person), name: person.name, startScreen: row.startScreen ?? undefined };
}

/** The made-up viewers that builders of the application have named and kept, by name. */
export const keptViewers = (applicationId: string): Promise<KeptViewer[]> =>
  database()
    .select({ id: madeViewers.id, name: madeViewers.name, viewer: madeViewers.viewer })
    .from(madeViewers)
    .where(eq(madeViewers.applicationId, applicationId))
    .orderBy(asc(madeViewers.name), asc(madeViewers.id));

/** Keeps a made-up viewer under a name. Returns its id. */
export async function keepViewer(applicationId: string, name: string, viewer: MadeViewer): Promise<string> {
  const [row] = await database()
    .insert(madeViewers)
    .values({ applicationId, name, viewer })
    .returning({ id: madeViewers.id });
  return row?.id ?? '';
}

/** Forgets a made-up viewer. */
export async function forgetViewer(applicationId: string, id: string): Promise<void> {
  await database()
    .delete(madeViewers)
    .where(and(eq(madeViewers.id, id), eq(madeViewers.applicationId, applicationId)));
}
