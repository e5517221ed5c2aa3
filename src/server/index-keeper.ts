import pg from 'pg';
import { config, databaseUrl } from './config.mjs';
import { log, errorForLog } from './log';
import { CHANNEL } from './notifications/notices';
import { keepIndexes } from './records/keep-indexes';

/**
 * Run by bin/start beside the server, as the role that may change tables, which the server may not: after each release,
 * after many live records were written at once, and every hour for what has grown, it sees to the indexes of live records. It serves nothing and hears of these
 * only. Without it everything answers the same, slower. Ends with 1 where the database went away, to be started again;
 * with 0 where its role may not.
 */
const EVERY = 3_600_000;
/** SQLSTATE: insufficient_privilege. */
const NOT_ALLOWED = '42501';

const client = new pg.Client({ connectionString: config().migrationUrl ?? databaseUrl() });
const ending = new AbortController();
let at: Promise<void> = Promise.resolve();
let waiting = false;

/** Once more, when what is being done is done; asked often meanwhile, only once. */
function again(): void {
  if (waiting) return;
  waiting = true;
  at = at.then(async () => {
    waiting = false;
    const { made, dropped } = await keepIndexes(client, ending.signal);
    if (made + dropped > 0) log.info({ made, dropped }, 'Record indexes updated');
  });
  at.catch(end);
}

function end(error?: unknown): void {
  if (error !== undefined) log.warn(errorForLog(error), 'Record indexes are no longer being maintained');
  // Who may not change tables does not come to do so by trying again.
  process.exit(error === undefined || errorForLog(error).code === NOT_ALLOWED ? 0 : 1);
}

// Broken off in the middle of an index, PostgreSQL leaves one that is not valid; the next start takes it away.
for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    ending.abort();
    void client.end().finally(() => end());
  });
// Who started it is gone.
process.stdin.on('end', () => process.kill(process.pid, 'SIGTERM')).resume();
client.on('error', end);
client.on('notification', ({ payload = '' }) => {
  if (/ (release|records)$/.test(payload)) again();
});
client
  .connect()
  .then(() => client.query(`listen ${CHANNEL}`))
  .then(again, end);
setInterval(again, EVERY);
