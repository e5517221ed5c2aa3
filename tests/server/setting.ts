import { accessOf, compile } from '@/core';
import { type Circumstances, rightNow, type Viewer } from '@/core/access';
import { type Definition, newId, type Values } from '@/core/model';
import { sql } from 'drizzle-orm';
import { database } from '@/server/database/client';
import { migrateDatabase } from '@/server/database/migrate';
import { applications, builders, memberships, records, type RecordKind } from '@/server/database/schema';
import type { WholeList } from '@/server/records/lists';
import type { RecordScope } from '@/server/records/read';
import { addApplication } from '@/server/seed';

/** An empty database of the tests' own: bin/test makes one for them. */
export async function emptyDatabase(): Promise<void> {
  await migrateDatabase(database());
  await database().execute(
    sql`truncate applications, builders, installation, sign_in_attempts, audit_events cascade`,
  );
}

/** The definition as a released application, with two builders; returns their ids. */
export async function application(definition: Definition): Promise<{ ada: string; bo: string }> {
  await addApplication(database(), definition.id, definition);
  const ids = await Promise.all(
    ['ada', 'bo'].map(async (name) => {
      const [row] = await database()
        .insert(builders)
        .values({ name, email: `${name}-${definition.id}@test.example`, passwordHash: 'none' })
        .returning();
      const builderId = row?.id ?? '';
      await database().insert(memberships).values({ applicationId: definition.id, builderId, role: 'owner' });
      return builderId;
    }),
  );
  const [ada = '', bo = ''] = ids;
  return { ada, bo };
}

export async function dropApplications(): Promise<void> {
  await database().execute(sql`truncate ${applications}, ${builders} cascade`);
}

/** The same application under an id that was never used: what is kept in memory goes by it. */
export function underNewId(definition: Definition): Definition {
  const id = newId();
  const gates = Object.entries(definition.gates).map(([key, gate]) => [
    key === definition.id ? id : key,
    gate,
  ]);
  return { ...definition, id, gates: Object.fromEntries(gates) };
}

export async function put(
  definition: Definition,
  entity: string,
  id: string,
  data: Values,
  kind: RecordKind = 'live',
): Promise<void> {
  await database().insert(records).values({ applicationId: definition.id, kind, entity, id, data });
}

export const scopeFor = (
  definition: Definition,
  viewer: Viewer,
  kind: RecordKind = 'live',
  circumstances: Circumstances = rightNow(),
): RecordScope => ({
  applicationId: definition.id,
  kind,
  access: accessOf(compile(definition), viewer, circumstances),
});

/** A list's whole file. */
export async function fileOf(list: WholeList): Promise<string> {
  let file = '';
  for await (const { text } of list.csv({})) file += text;
  return file;
}
