import { readFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';

const EVERY = 1000;
const WITHIN = 2000;
const STEP = 100;
/** A connection that does not come about is let go of. */
const LET_GO_AFTER = 8000;

/** How many steps bring a database up to date, as this code knows them. */
const JOURNAL = new URL('../database/migrations/meta/_journal.json', import.meta.url);
/** @type {number} */
const STEPS = JSON.parse(readFileSync(JOURNAL, 'utf8')).entries.length;

/**
 * Fails once two seconds have gone by in which an answer would have been heard. They are waited for in steps: while
 * this process works out a page it hears nothing, and all that time counts as one of them.
 * @param {AbortSignal} signal
 */
async function unheard(signal) {
  for (let n = 0; n < WITHIN / STEP; n++) await sleep(STEP, undefined, { ref: false, signal });
  throw new Error('The database did not respond');
}

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
      client = new pg.Client({ connectionString: url, connectionTimeoutMillis: LET_GO_AFTER });
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
    const answered = new AbortController();
    try {
      await Promise.race([ask(), unheard(answered.signal)]);
      watch.away = false;
    } catch {
      watch.away = true;
      last = performance.now();
      drop();
    } finally {
      answered.abort();
    }
    timer = setTimeout(() => void round(), EVERY).unref();
  };
  /** @type {NodeJS.Timeout | undefined} */
  let timer;
  void round();
  return watch;
}
