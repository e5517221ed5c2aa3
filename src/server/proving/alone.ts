import { setPriority } from 'node:os';
import pg from 'pg';
import { databaseUrl } from '../config.mjs';
import { log, errorForLog } from '../log';
import { CHANNEL } from '../notifications/notices';

/** What is worked on beside the servers, by one process for all that are on one database. */
interface Work {
  /** The number of PostgreSQL's advisory lock that the one that works holds. */
  readonly lock: number;
  readonly begin: () => Promise<void>;
  /** Hears of news of an application. */
  readonly hear: (applicationId: string, what: string) => void;
}

const WAITING_MS = 5000;
const BEHIND_THE_SERVER = 10;

/**
 * Runs this process beside a server, behind it where there is not time for both: waits until no other works on the same,
 * then begins, and hears news. It ends with who started it, and with its line to the database.
 */
export function workAlone({ lock, begin, hear }: Work): void {
  const client = new pg.Client({ connectionString: databaseUrl() });
  const waited = async (): Promise<void> => {
    await client.connect();
    for (;;) {
      const { rows } = await client.query<{ mine: boolean }>('select pg_try_advisory_lock($1) as mine', [
        lock,
      ]);
      if (rows[0]?.mine) break;
      await new Promise((resolve) => setTimeout(resolve, WAITING_MS));
    }
    await client.query(`listen ${CHANNEL}`);
    await begin();
  };
  setPriority(BEHIND_THE_SERVER);
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => process.exit(0));
  // Who started it is gone.
  process.stdin.on('end', () => process.exit(0)).resume();
  const end = (error: unknown): void => {
    log.warn(errorForLog(error), 'Checks are paused');
    process.exit(1);
  };
  client.on('error', end);
  client.on('notification', ({ payload = '' }) => {
    const [applicationId = '', what = ''] = payload.split(' ');
    hear(applicationId, what);
  });
  waited().catch(end);
}
