import { setPriority } from 'node:os';
import pg from 'pg';
import { databaseUrl } from '../config.mjs';
import { log, told } from '../log';
import { CHANNEL } from '../news/news';
import { prove, toBeProved } from './prove';
import { dropLeftCopies, runSweep, sweepsToRun } from './sweep/run';

/**
 * Run beside each server, so that what takes long keeps nobody waiting: after each change of a draft or of people it
 * works out what is probably wrong and which expectations break, and tells who is looking; and it carries sweeps out. Of several on one database,
 * one works; the others wait for it to end. It ends with who started it.
 */
const WAITING_MS = 5000;
/** So often it is looked for what has not been proved for a day. */
const LOOKING_MS = 10 * 60_000;
/** The number of PostgreSQL's advisory lock that the one that works holds. */
const LOCK = 1_903_117;
const BEHIND_THE_SERVER = 10;

/** Where the server answers beside which this runs. */
const server = process.env['ZINC_SERVER'] ?? 'http://127.0.0.1:4620';

const client = new pg.Client({ connectionString: databaseUrl() });
const waiting = new Set<string>();
let working = false;

async function work(): Promise<void> {
  if (working) return;
  working = true;
  for (const id of waiting) {
    waiting.delete(id);
    await prove(id).catch((error: unknown) => log.warn(told(error), 'An application could not be proved'));
  }
  working = false;
}

/** What was changed while nobody worked, and what was proved so long ago that a day or a role may be over by now. */
async function catchUp(since?: Date): Promise<void> {
  for (const id of await toBeProved(since)) waiting.add(id);
  await work();
}

let sweeping: Promise<void> = Promise.resolve();

/** One sweep after the other, while drafts go on being looked through. */
function sweep(): void {
  sweeping = sweeping.then(async () => {
    for (const id of await sweepsToRun()) await runSweep(id, server);
  });
  sweeping.catch((error: unknown) => log.warn(told(error), 'A sweep was broken off'));
}

function hear(payload = ''): void {
  const [applicationId = '', what = ''] = payload.split(' ');
  if (what === 'sweep') sweep();
  if (!['draft', 'people', 'expected', 'release'].includes(what)) return;
  waiting.add(applicationId);
  void work();
}

async function begin(): Promise<void> {
  await client.connect();
  for (;;) {
    const { rows } = await client.query<{ mine: boolean }>('select pg_try_advisory_lock($1) as mine', [LOCK]);
    if (rows[0]?.mine) break;
    await new Promise((resolve) => setTimeout(resolve, WAITING_MS));
  }
  await client.query(`listen ${CHANNEL}`);
  // By another version of the program other things may be found: all is looked through once.
  await catchUp(new Date());
  setInterval(() => {
    catchUp().catch((error: unknown) => log.warn(told(error), 'What is over by now was not looked for'));
  }, LOOKING_MS);
  await dropLeftCopies();
  sweep();
}

setPriority(BEHIND_THE_SERVER);
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => process.exit(0));
// Who started it is gone.
process.stdin.on('end', () => process.exit(0)).resume();
client.on('error', (error) => {
  log.warn(told(error), 'The line to the database broke: nothing is proved for a moment');
  process.exit(1);
});
client.on('notification', ({ payload }) => hear(payload));
begin().catch((error: unknown) => {
  log.warn(told(error), 'Nothing is proved for a moment');
  process.exit(1);
});
