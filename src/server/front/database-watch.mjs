import { readFileSync } from 'node:fs';
import pg from 'pg';

const EVERY = 1000;
const WITHIN = 2000;

/** How many steps bring a database up to date, as this code knows them. */
const JOURNAL = new URL('../database/migrations/meta/_journal.json', import.meta.url);
/** @type {number} */
const STEPS = JSON.parse(readFileSync(JOURNAL, 'utf8')).entries.length;

/**
 * Asks the database every second whether it is there. It is away once it has not answered in two seconds. It is
 * current where every step that this code knows was made: a server of a new version may be up before that.
 * @param {string} url
 */
export function watchDatabase(url) {
  let last = -Infinity;
  const watch = {
    away: false,
    current: false,
    /** Was it away some seconds ago? What fails now may come from that. */
    wasAway: () => performance.now() - last < 10_000,
    stop: () => clearTimeout(timer),
  };
  /** @type {pg.Client | undefined} */
  let client;
  const drop = () => {
    const old = client;
    client = undefined;
    void old?.end().catch(() => undefined);
  };
  const ask = async () => {
    if (!client) {
      client = new pg.Client({
        connectionString: url,
        connectionTimeoutMillis: WITHIN,
        query_timeout: WITHIN,
      });
      client.on('error', drop);
      await client.connect();
    }
    if (watch.current) await client.query('select 1');
    else {
      const { rows } = await client.query('select count(*)::int as steps from drizzle.__drizzle_migrations');
      watch.current = rows[0].steps >= STEPS;
    }
  };
  const round = async () => {
    try {
      await ask();
      watch.away = false;
    } catch {
      watch.away = true;
      last = performance.now();
      drop();
    }
    timer = setTimeout(() => void round(), EVERY).unref();
  };
  /** @type {NodeJS.Timeout | undefined} */
  let timer;
  void round();
  return watch;
}
