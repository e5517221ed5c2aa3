import { setPriority } from 'node:os';
import { log, errorForLog } from '../log';
import { away, cancelled, failed, Refused } from '../http/problem';
import { isAway } from '../database/client';
import { JOBS, type Job } from './jobs';
import { READ_WITHIN, TELL_EVERY } from './limits';
import type { FromWorker, ToWorker } from './messages';

/**
 * A process beside the server that works out whatever grows with the size of an application or a file. It takes one
 * piece of work at a time, tells how far it is, and stops when it is told to. It ends with the server that started it.
 */
const BEHIND_THE_SERVER = 10;

const stops = new Map<number, AbortController>();
/** Where a file waits for its reader. */
const waits = new Map<number, () => void>();
const send = (message: FromWorker): void => void process.send?.(message);
const megabytes = (): number => Math.round(process.memoryUsage.rss() / 1e6);

async function work(id: number, name: string, input: unknown): Promise<void> {
  const stop = new AbortController();
  stops.set(id, stop);
  let last = 0;
  const tell = (done: number, of: number): void => {
    if (performance.now() - last < TELL_EVERY) return;
    last = performance.now();
    send({ id, done, of });
  };
  try {
    const job = (await JOBS[name as keyof typeof JOBS]()) as Job<unknown, unknown>;
    const value = await job(input, { tell, signal: stop.signal, write: (part) => write(id, part) });
    send({ id, value: JSON.stringify(value ?? null), mb: megabytes() });
  } catch (error) {
    send({ id, refused: refusalOf(error, name, stop.signal).refusal, mb: megabytes() });
  } finally {
    stops.delete(id);
  }
}

/** Hands a part of a file on. A reader who does not take it in time is taken to have gone. */
function write(id: number, part: string): Promise<void> {
  send({ id, part });
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => reject(cancelled()), READ_WITHIN);
    waits.set(id, () => {
      clearTimeout(late);
      waits.delete(id);
      resolve();
    });
  });
}

/** What the sender is told of an error. */
function refusalOf(error: unknown, job: string, signal: AbortSignal): Refused {
  if (error instanceof Refused) return error;
  if (signal.aborted) return cancelled();
  if (isAway(error)) {
    log.warn({ ...errorForLog(error), job }, 'The database was away');
    return away();
  }
  log.error({ ...errorForLog(error), job }, 'A piece of work failed');
  return failed();
}

setPriority(BEHIND_THE_SERVER);
process.on('message', (message: ToWorker) => {
  if ('stop' in message) stops.get(message.stop)?.abort();
  else if ('more' in message) waits.get(message.more)?.();
  else void work(message.id, message.job, message.input);
});
// The server has gone.
process.on('disconnect', () => process.exit(0));
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => undefined);
// What most work needs is read while nobody waits for it; whoever needs it is told why it cannot be read.
JOBS.review().catch(() => undefined);
