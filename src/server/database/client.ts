import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import { databaseUrl } from '../config.mjs';
import { log, rootOf, errorForLog } from '../log';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;
/** What runs in a transaction as well as outside one. */
export type Executor = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute' | '$count'>;

/** How long the database may take for one statement, in milliseconds: it holds to that by itself. */
const STATEMENT_WITHIN = 4000;
/**
 * And to be reached, and to answer at all: much longer, since it goes by in this process, which hears nothing while it
 * works something out. Whoever waits for a database that is away is told so before, by the front.
 */
const ANSWERED_WITHIN = 8000;

/** Connects to the server that a URL names. The caller ends the pool. `patient`: for what takes its time. */
export function connect(url: string, { patient = false } = {}): { database: Database; pool: pg.Pool } {
  const pool = new pg.Pool({
    connectionString: url,
    max: patient ? 3 : 20,
    connectionTimeoutMillis: ANSWERED_WITHIN,
    // What was asked by a process that has ended is not worked out to its end (from PostgreSQL 14 on).
    options: '-c client_connection_check_interval=2000',
    ...(!patient && { statement_timeout: STATEMENT_WITHIN, query_timeout: ANSWERED_WITHIN }),
  });
  // An idle connection that breaks (the server restarts) is replaced by the next query.
  pool.on('error', (error) => log.warn(errorForLog(error), 'An idle database connection was lost'));
  return { database: drizzle(pool, { schema }), pool };
}

const shared = globalThis as {
  zincGateDatabase?: ReturnType<typeof connect>;
  zincGatePatient?: ReturnType<typeof connect>;
};

/** The process's one pool, on `DATABASE_URL`. */
export const database = (): Database => (shared.zincGateDatabase ??= connect(databaseUrl())).database;

/** For what takes its time, such as reading a large file in: without limits, and beside what people wait for. */
export const patientDatabase = (): Database =>
  (shared.zincGatePatient ??= connect(databaseUrl(), { patient: true })).database;

/** Lets go of the process's pool: for programs that end. */
export async function closeDatabase(): Promise<void> {
  await shared.zincGateDatabase?.pool.end();
  await shared.zincGatePatient?.pool.end();
  delete shared.zincGateDatabase;
  delete shared.zincGatePatient;
}

/** SQLSTATE's classes and Node's words for a database that is away, is going, or does not answer in time. */
const AWAY = /^(08|53|57)|^(ECONNREFUSED|ECONNRESET|ENOTFOUND|EPIPE|ETIMEDOUT)$/;
const AWAY_IN_WORDS = /timeout exceeded when trying to connect|Query read timeout|Connection terminated/;

/** Did this fail since the database is away, overloaded or too slow? */
export function isAway(error: unknown): boolean {
  return AWAY.test(wordOf(error, 'code')) || AWAY_IN_WORDS.test(wordOf(error, 'message'));
}

/** Did the database refuse a value that it cannot keep (SQLSTATE class 22)? */
export const isUnstorable = (error: unknown): boolean => /^22/.test(wordOf(error, 'code'));

function wordOf(error: unknown, key: 'code' | 'message'): string {
  const word = (rootOf(error) as Partial<Record<typeof key, unknown>> | undefined)?.[key];
  return typeof word === 'string' ? word : '';
}
