import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { afterAll, afterEach, beforeEach, expect, it } from 'vitest';
import { connect, patientDatabase } from '@/server/database/client';
import { migrateDatabase } from '@/server/database/migrate';

const MIGRATIONS = fileURLToPath(new URL('../../src/server/database/migrations', import.meta.url));
const NAME = `zinc_earlier_${process.pid}`;
const earlier = new URL(process.env['DATABASE_URL'] ?? '');
earlier.pathname = `/${NAME}`;
const folder = mkdtempSync(join(tmpdir(), 'migrations-'));

// Patiently: to make or drop a database takes a checkpoint.
beforeEach(() => patientDatabase().execute(sql.raw(`create database ${NAME}`)));
afterEach(() => patientDatabase().execute(sql.raw(`drop database ${NAME} with (force)`)));
afterAll(() => rmSync(folder, { recursive: true }));

/** The migrations that there were up to one of them. */
function migrationsBefore(idx: number): string {
  cpSync(MIGRATIONS, folder, { recursive: true });
  const path = join(folder, 'meta/_journal.json');
  const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: { idx: number }[] };
  writeFileSync(
    path,
    JSON.stringify({ ...journal, entries: journal.entries.filter((one) => one.idx < idx) }),
  );
  return folder;
}

it('makes invitations of those who were let in and had not chosen a password, for an owner to send again', async () => {
  const { database: on, pool } = connect(earlier.href, { patient: true });
  try {
    await migrate(on, { migrationsFolder: migrationsBefore(7) });
    await on.execute(
      sql`insert into applications (id, slug, name) values ('one', 'one', 'One'), ('two', 'two', 'Two')`,
    );
    await on.execute(sql`insert into builders (email, name, password_hash) values
      ('ada@x.example', 'Ada', 'hash'), ('cy@x.example', 'Cy', null), ('dot@x.example', 'Dot', null)`);
    await on.execute(sql`insert into memberships (application_id, builder_id, role)
      select 'one', id, 'owner' from builders where name = 'Ada' union all
      select app, id, 'editor' from builders, unnest(array['one', 'two']) as app where name = 'Cy' union all
      select 'two', id, 'reviewer' from builders where name = 'Dot'`);
    await on.execute(sql`insert into builder_links (token_hash, builder_id, expires_at)
      select 'token', id, now() + interval '1 day' from builders where name = 'Cy'`);
    await migrateDatabase(on);
    const { rows: builders } = await on.execute(sql`select name from builders`);
    expect(builders).toEqual([{ name: 'Ada' }]);
    const { rows } = await on.execute(sql`
      select application_id as of, name, role, token_hash = 'token' as opens, expires_at > now() as holds
      from invitations order by 2, 1`);
    // Old links were shown to owners: none opens. Where no owner answers for it, nobody is let in.
    expect(rows).toEqual([{ of: 'one', name: 'Cy', role: 'editor', opens: true, holds: false }]);
  } finally {
    await pool.end();
  }
});

it('leaves out of definitions what was null where an id may be left out, and nothing else', async () => {
  const { database: on, pool } = connect(earlier.href, { patient: true });
  const odd = 'a "of": null, \\"opens": null} text';
  const stored = {
    name: odd,
    opens: null,
    parts: [{ of: null, through: 'kept' }, { screen: null }, { value: null, startScreen: null }],
    actions: [{ sets: { screen: null } }, 'text', 1, []],
    unitField: null,
  };
  try {
    await migrate(on, { migrationsFolder: migrationsBefore(14) });
    await on.execute(sql`insert into applications (id, slug, name) values ('one', 'one', 'One')`);
    await on.execute(
      sql`insert into snapshots (application_id, revision, definition) values ('one', 0, ${JSON.stringify(stored)}::jsonb)`,
    );
    await migrateDatabase(on);
    const { rows } = await on.execute(sql`select definition from snapshots`);
    expect(rows).toEqual([
      {
        definition: { name: odd, parts: [{ through: 'kept' }, {}, { value: null }], actions: stored.actions },
      },
    ]);
  } finally {
    await pool.end();
  }
});
