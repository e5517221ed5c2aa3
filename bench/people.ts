import { eq, sql } from 'drizzle-orm';
import { database } from '@/server/database/client';
import {
  applications,
  assignments,
  builders,
  memberships,
  people,
  releases,
  snapshots,
} from '@/server/database/schema';
import { addDays } from '@/core/condition';
import { unitsOf } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { Random } from '@/core/making';
import { type Measure, middle } from './measure';

const MANY = 5000;
const CHANGES_A_MINUTE = 200;

/** Opening the people bench with 5,000 people, 200 assignments changed a minute, against the same with 60. */
export async function measurePeople(address: string, cookie: string): Promise<Measure[]> {
  const open = async (slug: string): Promise<void> => {
    const answer = await fetch(`${address}/studio/${slug}/people`, { headers: { cookie } });
    const page = await answer.text();
    if (!answer.ok || !page.includes('People')) throw new Error(`The people bench of ${slug} did not open`);
  };
  const changing = setInterval(() => void changeOne(), 60_000 / CHANGES_A_MINUTE);
  try {
    const spent: Record<'few' | 'many', number[]> = { few: [], many: [] };
    for (let n = 0; n < 40; n++)
      for (const [key, slug] of [
        ['few', 'larkfield'],
        ['many', 'manypeople'],
      ] as const) {
        const start = performance.now();
        await open(slug);
        if (n >= 5) spent[key].push(performance.now() - start);
      }
    const [a, b] = [middle(spent.many), middle(spent.few)];
    return [
      {
        name: 'opening the people bench, 5,000 people against 60',
        ours: a,
        against: b,
        unit: 'ms',
        ratio: a / b,
        most: 1.5,
      },
    ];
  } finally {
    clearInterval(changing);
  }
}

/** The demo once more, with 5,000 people: each with one or two of its roles, half of them in one unit only, trained until some day of a year. */
export async function manyPeople(): Promise<void> {
  const on = database();
  const id = 'manypeople';
  const definition = {
    ...LARKFIELD,
    id,
    gates: { ...LARKFIELD.gates, [id]: LARKFIELD.gates['larkfield'] ?? { lines: [] } },
  };
  await on.insert(applications).values({ id, slug: id, name: 'Many people', release: 1 });
  await on.insert(snapshots).values({ applicationId: id, revision: 0, definition });
  await on.insert(releases).values({ applicationId: id, number: 1, revision: 0, definition });
  const [builder] = await on.select().from(builders).where(eq(builders.email, 'tamsin@larkfield.example'));
  if (builder)
    await on.insert(memberships).values({ applicationId: id, builderId: builder.id, role: 'owner' });
  const random = new Random(5);
  const roles = LARKFIELD.roles.map((role) => role.id);
  const units = unitsOf(LARKFIELD).map((unit) => unit.id);
  const days = Array.from({ length: 365 }, (_, day) => addDays('2026-06-01', day));
  for (let n = 0; n < MANY; n += 1000) {
    const rows = await on
      .insert(people)
      .values(
        Array.from({ length: 1000 }, (_, m) => ({
          applicationId: id,
          name: `Person ${n + m}`,
          email: `person${n + m}@many.example`,
          passwordHash: 'none',
          homeUnit: random.one(units),
          attributes: { u_trained: random.one(days), u_staff: random.next() < 0.3 },
        })),
      )
      .returning({ id: people.id });
    await on.insert(assignments).values(
      rows.flatMap(({ id: personId }) =>
        Array.from({ length: random.one([1, 1, 1, 2]) }, () => ({
          personId,
          roleId: random.one(roles),
          unitId: random.next() < 0.5 ? random.one(units) : null,
        })),
      ),
    );
  }
  await on.execute(sql`analyze`);
}

async function changeOne(): Promise<void> {
  await database().execute(
    sql`update assignments set unit_id = case when unit_id is null then 'main-hall' end
      where id = (select id from assignments order by random() limit 1)`,
  );
}
