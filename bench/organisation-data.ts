import { sql } from 'drizzle-orm';
import { Random } from '@/core/making';
import { database } from '@/server/database/client';
import { memberships } from '@/server/database/schema';
import { hashPassword } from '@/server/security/password';
import { addApplication } from '@/server/seed';
import { ORGANISATION, organisation, organisationPeople } from './organisation';

/** How much of it: fewer people and records where time is short. */
export interface Amounts {
  readonly people: number;
  readonly records: number;
}

/** Puts the large organisation into the database, for these builders; all of its people have that password. */
export async function putOrganisation(
  builderIds: readonly string[],
  password: string,
  { people: count, records: rows }: Amounts = ORGANISATION,
): Promise<void> {
  const on = database();
  const random = new Random(11);
  const definition = organisation(random);
  await addApplication(on, definition.id, definition);
  for (const builderId of builderIds)
    await on.insert(memberships).values({
      applicationId: definition.id,
      builderId,
      role: 'owner',
      people: true,
      live: 'change',
    });
  const everyone = organisationPeople(random, count);
  const passwordHash = await hashPassword(password);
  const PART = 1000;
  for (let n = 0; n < everyone.length; n += PART) {
    const part = everyone.slice(n, n + PART).map(({ id, name, attributes, assignments }) => {
      const { email, home_unit, u_staff, u_until } = attributes;
      return { id, name, email, home_unit, attributes: { u_staff, u_until }, assignments };
    });
    await on.execute(sql`
      with given as (
        select * from jsonb_to_recordset(${JSON.stringify(part)}::jsonb)
          as one (id uuid, name text, email text, home_unit text, attributes jsonb, assignments jsonb)
      ), new as (
        insert into people (id, application_id, name, email, home_unit, attributes, password_hash)
        select id, ${definition.id}, name, email, home_unit, attributes, ${passwordHash} from given
      )
      insert into assignments (person_id, role_id, unit_id, until)
      select id, one.role, one.unit, one.until
      from given, jsonb_to_recordset(given.assignments) as one (role text, unit text, until timestamptz)`);
  }
  for (const [kind, most] of [
    ['live', rows],
    ['sample', 300],
  ] as const)
    for (let n = 0; n < most; n += 20_000)
      await on.execute(sql`
        insert into records (application_id, kind, entity, id, data, created_at)
        select ${definition.id}, ${kind}, 'e0', 'R' || lpad(n::text, 9, '0'), jsonb_build_object(
            'e0f0', 'Case about ' || md5(n::text), 'e0f1', 'C-' || n, 'e0f2', 'unit' || n % ${ORGANISATION.units},
            'e0f3', 'person.' || n % 5000 || '@organisation.example', 'e0f4', to_char(date '2024-01-01' + n % 1500, 'YYYY-MM-DD'),
            'e0f5', (n % 100000)::text || '.5', 'e0f6', n % 2 = 0, 'e0f7', 'Notes on ' || md5((n * 7)::text)),
          now() - interval '1 day' + n * interval '1 microsecond'
        from generate_series(${n}::int, ${Math.min(n + 20_000, most) - 1}::int) as n`);
  await on.execute(sql`analyze`).catch(() => undefined);
}
