import pg from 'pg';

const EVERY = 1000;
const WITHIN = 2000;

/**
 * Asks the database every second whether it is there. It is away once it has not answered in two seconds.
 * @param {string} url
 */
export function watchDatabase(url) {
  let last = -Infinity;
  const watch = {
    away: false,
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
    await client.query('select 1');
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
