import { migrate } from 'drizzle-orm/node-postgres/migrator';
import type { Database } from './client';

/** Brings the database's tables and functions up to date. Does nothing where they are. Runs in the project's folder. */
export async function migrateDatabase(database: Database): Promise<void> {
  await migrate(database, { migrationsFolder: 'src/server/database/migrations' });
}
