import { sql } from 'drizzle-orm';
import pg from 'pg';
import { databaseUrl } from '../config.mjs';
import type { Executor } from '../database/client';
import { log, errorForLog } from '../log';

/**
 * What has happened to an application that builders who look at it want to know of: its draft is at that revision, it
 * was released, somebody sent a note, people were changed (told by the tables themselves), many
 * live records were written, something else is expected,
 * that revision was looked through for what is probably wrong, a sweep is asked for, has come further, or who gets what was signed off. It says no more than that.
 */
export type ChangeNotice =
  | `draft ${number}`
  | 'release'
  | 'note'
  | 'people'
  | 'records'
  | 'expected'
  | `proved ${number}`
  | 'sweep'
  | 'swept'
  | 'signed';
/** `missed`: the line to the database was down for a moment, and anything may have happened. */
type Heard = ChangeNotice | 'missed';

export const CHANNEL = 'zinc_news';
const AGAIN_AFTER = 1000;

/** Tells it, once the transaction is stored, to every server on this database (PostgreSQL's NOTIFY). */
export async function notifyChange(on: Executor, applicationId: string, news: ChangeNotice): Promise<void> {
  await on.execute(sql`select pg_notify(${CHANNEL}, ${`${applicationId} ${news}`})`);
}

/** One connection of the process hears for all who listen; it is opened again where it breaks. */
class Ear {
  private readonly listeners = new Map<string, Set<(heard: Heard) => void>>();
  private client: pg.Client | undefined;

  listen(applicationId: string, listener: (heard: Heard) => void): () => void {
    const here = this.listeners.get(applicationId) ?? new Set();
    this.listeners.set(applicationId, here.add(listener));
    if (!this.client) this.open();
    return () => {
      here.delete(listener);
      if (here.size === 0 && this.listeners.get(applicationId) === here) this.listeners.delete(applicationId);
      if (this.listeners.size === 0) this.end();
    };
  }

  /** Lets go of the connection. */
  end(): void {
    const { client } = this;
    this.client = undefined;
    client?.removeAllListeners('end');
    void client?.end().catch(() => undefined);
  }

  private open(): void {
    const client = new pg.Client({ connectionString: databaseUrl(), connectionTimeoutMillis: 2000 });
    this.client = client;
    const lost = (): void => {
      if (this.client !== client) return;
      this.end();
      setTimeout(() => {
        if (this.listeners.size === 0 || this.client) return;
        this.open();
        this.tellAll('missed');
      }, AGAIN_AFTER).unref();
    };
    client.on('error', (error) => {
      log.warn(errorForLog(error), 'The connection for change notifications was lost');
      lost();
    });
    client.on('end', lost);
    client.on('notification', ({ payload = '' }) => {
      const [applicationId = '', ...news] = payload.split(' ');
      for (const listener of this.listeners.get(applicationId) ?? [])
        listener(news.join(' ') as ChangeNotice);
    });
    client
      .connect()
      .then(() => client.query(`listen ${CHANNEL}`))
      .catch(lost);
  }

  private tellAll(heard: Heard): void {
    for (const here of this.listeners.values()) for (const listener of here) listener(heard);
  }
}

const shared = globalThis as { zincGateEar?: Ear };

/** Calls `listener` at each piece of news of an application. Returns what stops it. */
export const onChange = (applicationId: string, listener: (heard: Heard) => void): (() => void) =>
  (shared.zincGateEar ??= new Ear()).listen(applicationId, listener);
