import { parseArgs } from 'node:util';
import { sql } from 'drizzle-orm';
import { config, databaseUrl } from './config.mjs';
import { connect, type Database } from './database/client';
import { databaseProblem } from './database/in-words';
import { migrateDatabase } from './database/migrate';
import { builders, installation } from './database/schema';
import { setUp } from './seed';
import { errorForLog } from './log';
import { upgradeStored } from './upgrade';

/**
 * Run by bin/start and bin/test before the server: brings the database up to date, fills an empty one, gives the
 * role that the server works as what it needs, and prints as one line of JSON how to sign in. `MIGRATION_URL` is
 * as whom tables are changed, where that is another role than `DATABASE_URL` names.
 */
const { values } = parseArgs({ options: { empty: { type: 'boolean', default: false } } });
/** Rows of all tables may be read and written; what happened, and what is released, is only ever added to. */
async function giveRights(database: Database, role: string): Promise<void> {
  const to = sql.identifier(role);
  const all = ['select', 'insert', 'update', 'delete'];
  await database.execute(sql`grant usage on schema public to ${to}`);
  await database.execute(sql`grant ${sql.raw(all.join(', '))} on all tables in schema public to ${to}`);
  await database.execute(sql`grant usage on all sequences in schema public to ${to}`);
  // Whether all steps were made is asked by /ready.
  await database.execute(sql`grant usage on schema drizzle to ${to}`);
  await database.execute(sql`grant select on all tables in schema drizzle to ${to}`);
  await database.execute(sql`revoke create on schema public from ${to}, public`);
  await database.execute(
    sql`revoke update, delete on audit_events, releases, edits, snapshots, sign_offs from ${to}`,
  );
  await database.execute(sql`revoke insert, update, delete on installation from ${to}`);
}

const roleOf = (address: string): string => decodeURIComponent(new URL(address).username);

async function main(): Promise<void> {
  const url = databaseUrl();
  const owner = config().migrationUrl ?? url;
  const { database, pool } = connect(owner, { patient: true });
  try {
    await migrateDatabase(database);
    await database.transaction(upgradeStored);
    const first = await setUp(database, !values.empty);
    if (roleOf(owner) !== roleOf(url)) await giveRights(database, roleOf(url));
    const [about] = await database.select().from(installation);
    const [builder] = await database.select().from(builders).orderBy(builders.createdAt).limit(1);
    const demo = about?.demoPassword ? { email: builder?.email, password: about.demoPassword } : undefined;
    process.stdout.write(JSON.stringify({ first, demo }) + '\n');
  } finally {
    await pool.end();
  }
}

/** One line about what is wrong, for whoever starts it. */
function inWords(error: unknown): string {
  const known = databaseProblem(error);
  if (known !== undefined) return known;
  const { code } = errorForLog(error);
  if (error instanceof Error && code === undefined)
    return error.message.split('\n')[0] ?? 'The setup failed.';
  return `The database could not be prepared (${code ?? 'unknown'}).`;
}

main().catch((error: unknown) => {
  process.stderr.write(`${inWords(error)}\n`);
  process.exitCode = 1;
});
