import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;
/** What runs in a transaction as well as outside one. */
export type Executor = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

/** Connects to the server that a URL names. The caller ends the pool. */
export function connect(url: string): { database: Database; pool: pg.Pool } {
  const pool = new pg.Pool({ connectionString: url, max: 20 });
  // An idle connection that breaks (the server restarts) is replaced by the next query.
  pool.on('error', () => undefined);
  return { database: drizzle(pool, { schema }), pool };
}

const shared = globalThis as { zincGateDatabase?: ReturnType<typeof connect> };

/** The process's one pool, on `DATABASE_URL`. */
export function database(): Database {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set. bin/start sets it.');
  return (shared.zincGateDatabase ??= connect(url)).database;
}

/** Lets go of the process's pool: for programs that end. */
export async function closeDatabase(): Promise<void> {
  await shared.zincGateDatabase?.pool.end();
  delete shared.zincGateDatabase;
}
