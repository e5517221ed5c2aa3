import { sql } from 'drizzle-orm';
import { readDefinition } from '@/core';
import { type Definition, newId } from '@/core/model';
import { DEMO_SLUG } from '@/demo/accounts';
import { LARKFIELD } from '@/demo/definition';
import { EXPECTATIONS } from '@/demo/expectations';
import { demoPeople } from '@/demo/people';
import { demoRecords, LIVE_AMOUNTS, SAMPLE_AMOUNTS } from '@/demo/records';
import type { Database, Executor } from './database/client';
import {
  applications,
  assignments,
  builders,
  expectations,
  installation,
  memberships,
  people,
  records,
  releases,
  snapshots,
  type RecordKind,
} from './database/schema';
import { hashPassword, randomPassword } from './security/password';

/** How somebody signs in, to be told once. */
export interface Credentials {
  readonly email: string;
  readonly password: string;
}

const DEMO_BUILDERS = [
  { name: 'Tamsin Reed', email: 'tamsin@larkfield.example', role: 'owner' },
  { name: 'Jonah Pell', email: 'jonah@larkfield.example', role: 'editor' },
  { name: 'Vera Lunt', email: 'vera@larkfield.example', role: 'reviewer' },
] as const;

/**
 * Sets an empty database up, once: with the demo, or with one builder. Returns how the first builder signs
 * in, or undefined where all this was done before.
 */
export async function setUp(database: Database, demo: boolean): Promise<Credentials | undefined> {
  return database.transaction(async (tx) => {
    await tx.execute(sql`lock table ${installation} in exclusive mode`);
    if ((await tx.$count(installation)) > 0) return undefined;
    const password = randomPassword();
    await tx.insert(installation).values({
      id: 1,
      name: newId(6).toLowerCase(),
      demoPassword: demo ? password : null,
    });
    if (demo) return { email: await seedDemo(tx, password), password };
    const email = 'builder@localhost';
    await tx
      .insert(builders)
      .values({ email, name: 'First builder', passwordHash: await hashPassword(password) });
    return { email, password };
  });
}

/** Puts an application in the database, with its first release. */
export async function addApplication(on: Executor, slug: string, definition: Definition): Promise<void> {
  const read = readDefinition(definition);
  if (!read.ok) throw new Error(read.problems.map(({ place, message }) => `${place}: ${message}`).join('\n'));
  const applicationId = definition.id;
  await on.insert(applications).values({ id: applicationId, slug, name: definition.name, release: 1 });
  await on.insert(snapshots).values({ applicationId, revision: 0, definition });
  await on.insert(releases).values({ applicationId, number: 1, revision: 0, definition });
}

async function seedDemo(on: Executor, password: string): Promise<string> {
  const applicationId = LARKFIELD.id;
  await addApplication(on, DEMO_SLUG, LARKFIELD);
  let [pinned, owner]: (string | undefined)[] = [];
  for (const { name, email, assignments: held, active, homeUnit, attributes } of demoPeople()) {
    const passwordHash = await hashPassword(password);
    const [person] = await on
      .insert(people)
      .values({ applicationId, name, email, active, passwordHash, homeUnit, attributes })
      .returning();
    if (!person) throw new Error(`${name} was not stored`);
    await on.insert(assignments).values(
      held.map(({ role: roleId, unit: unitId, from, until }) => ({
        personId: person.id,
        roleId,
        unitId,
        from: from === undefined ? null : new Date(from),
        until: until === undefined ? null : new Date(until),
      })),
    );
    if (name === 'Ines Okafor') pinned = person.id;
  }
  for (const { role, ...builder } of DEMO_BUILDERS) {
    const [row] = await on
      .insert(builders)
      .values({ ...builder, passwordHash: await hashPassword(password) })
      .returning();
    if (!row) throw new Error(`${builder.name} was not stored`);
    owner ??= row.id;
    await on.insert(memberships).values({
      applicationId,
      builderId: row.id,
      role,
      people: role === 'owner',
      pins: pinned ? [pinned] : [],
    });
  }
  await on
    .insert(expectations)
    .values(EXPECTATIONS.map((expectation) => ({ applicationId, expectation, author: owner })));
  await seedRecords(on, 'live', demoRecords(1, LIVE_AMOUNTS));
  await seedRecords(on, 'sample', demoRecords(2, SAMPLE_AMOUNTS));
  return DEMO_BUILDERS[0].email;
}

async function seedRecords(
  on: Executor,
  kind: RecordKind,
  from: ReturnType<typeof demoRecords>,
): Promise<void> {
  const rows = from.map(({ entity, id, values }, n) => ({
    applicationId: LARKFIELD.id,
    kind,
    entity,
    id,
    data: values,
    // Lists without a sort are in the order in which their records were made.
    createdAt: new Date(Date.UTC(2026, 0, 1) + n * 60_000),
  }));
  for (let n = 0; n < rows.length; n += 500) await on.insert(records).values(rows.slice(n, n + 500));
}
