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
import { LARKFIELD } from '@/demo/definition';
import type { Measure } from './measure';

const MANY = 5000;
const CHANGES_A_MINUTE = 200;

/** Opening the people bench with 5,000 people, 200 assignments changed a minute, against the same with 60. */
export async function measurePeople(address: string, password: string): Promise<Measure[]> {
  const signedIn = await fetch(`${address}/studio/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email: 'tamsin@larkfield.example', password }),
  });
  const cookie = signedIn.headers.get('set-cookie')?.split(';')[0] ?? '';
  await manyPeople();
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
    const middle = (some: number[]): number => some.sort((a, b) => a - b)[Math.floor(some.length / 2)] ?? 0;
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

async function manyPeople(): Promise<void> {
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
  for (let n = 0; n < MANY; n += 1000) {
    const rows = await on
      .insert(people)
      .values(
        Array.from({ length: 1000 }, (_, m) => ({
          applicationId: id,
          name: `Person ${n + m}`,
          email: `person${n + m}@many.example`,
          passwordHash: 'none',
          homeUnit: m % 2 ? 'main-hall' : 'mill-annexe',
        })),
      )
      .returning({ id: people.id });
    await on
      .insert(assignments)
      .values(rows.map((row, m) => ({ personId: row.id, roleId: m % 3 ? 'volunteer' : 'assistant' })));
  }
  await on.execute(sql`analyze`);
}

async function changeOne(): Promise<void> {
  await database().execute(
    sql`update assignments set unit_id = case when unit_id is null then 'main-hall' end
      where id = (select id from assignments order by random() limit 1)`,
  );
}
