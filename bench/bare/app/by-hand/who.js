import { createHash } from 'node:crypto';
import { cookies } from 'next/headers';
import { cache } from 'react';
import pg from 'pg';

export const pool = (globalThis.barePool ??= new pg.Pool({
  connectionString: process.env.DATABASE_URL,
  max: 20,
}));

const RANK = ['volunteer', 'assistant', 'registrar', 'head'];

/** Who asks, by the session's cookie, and from which role on they are: once for a request. */
export const who = cache(async () => {
  const all = (await cookies()).getAll();
  const token = all.find(({ name }) => name.includes('live'))?.value ?? '';
  const hash = createHash('sha256').update(token).digest('hex');
  const { rows } = await pool.query({
    name: 'who',
    text: `select people.id, people.name, people.home_unit, array_agg(assignments.role_id) as roles
      from sessions join people on people.id = sessions.person_id
      left join assignments on assignments.person_id = people.id
        and (assignments.from is null or assignments.from <= now())
        and (assignments.until is null or now() < assignments.until)
      where sessions.token_hash = $1 and sessions.expires_at > now() and people.active and people.confirmed
      group by people.id`,
    values: [hash],
  });
  const [person] = rows;
  if (!person) return undefined;
  const rank = Math.max(...person.roles.map((role) => RANK.indexOf(role)));
  return { name: person.name, from: (role) => rank >= RANK.indexOf(role) };
});
