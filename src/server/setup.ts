import { parseArgs } from 'node:util';
import { connect } from './database/client';
import { migrateDatabase } from './database/migrate';
import { builders, installation } from './database/schema';
import { setUp } from './seed';
import { upgradeStored } from './upgrade';

/**
 * Run by bin/start and bin/test before the server: brings the database up to date, fills an empty one,
 * and prints as one line of JSON how to sign in.
 */
const { values } = parseArgs({ options: { empty: { type: 'boolean', default: false } } });
const { database, pool } = connect(process.env['DATABASE_URL'] ?? '', { patient: true });
try {
  await migrateDatabase(database);
  await database.transaction(upgradeStored);
  const first = await setUp(database, !values.empty);
  const [about] = await database.select().from(installation);
  const [builder] = await database.select().from(builders).orderBy(builders.createdAt).limit(1);
  const demo = about?.demoPassword ? { email: builder?.email, password: about.demoPassword } : undefined;
  process.stdout.write(JSON.stringify({ first, demo }) + '\n');
} finally {
  await pool.end();
}
