import { connection } from 'next/server';
import pg from 'pg';

const pool = (globalThis.barePool ??= new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 20 }));

/** The ceiling to measure against: a page that makes one query, and decides nothing. */
export default async function Page() {
  await connection();
  const { rows } = await pool.query(
    "select data from records where kind = 'live' and entity = 'item' limit 1",
  );
  return <pre>{JSON.stringify(rows[0])}</pre>;
}
