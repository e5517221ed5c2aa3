import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { newLine } from '@/core/edit';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { memberships } from '@/server/database/schema';
import { change } from '@/server/drafts/draft';
import { release } from '@/server/releasing/release';
import { onChange } from '@/server/notifications/notices';
import { newsStream } from '@/server/notifications/stream';
import { endSession, openSession } from '@/server/security/sessions';
import { isStillBuilder } from '@/server/studio/builder';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';

let id: string;
let other: string;
let ada: string;
let bo: string;
const stops: (() => void)[] = [];

beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  const [one, two] = [underNewId(LARKFIELD), underNewId(LARKFIELD)];
  [id, other] = [one.id, two.id];
  ({ ada, bo } = await application(one));
  await application(two);
});
afterEach(() => stops.splice(0).forEach((stop) => stop()));

/** A slow machine is no failure. */
const WITHIN = { timeout: 10_000 };

/** What is heard of an application from now on; ready once the line to the database is open. */
async function hear(applicationId: string): Promise<string[]> {
  const heard: string[] = [];
  stops.push(onChange(applicationId, (news) => heard.push(news)));
  await vi.waitFor(async () => {
    const open = await database().execute(
      sql`select 1 from pg_stat_activity where datname = current_database() and query = 'listen zinc_news' and state = 'idle'`,
    );
    expect(open.rows.length).toBeGreaterThan(0);
  }, WITHIN);
  return heard;
}

const edit = (base: number): Promise<unknown> =>
  change(id, ada, base, {
    edit: { do: 'addLine', gate: 's_stores', line: newLine({ kind: 'everyone' }, 'see'), at: 0 },
  });

const listener = (of: string) => ({ id: of, may: () => Promise.resolve(true), here: () => undefined });
const reading = (response: Response) => {
  const reader = (response.body as ReadableStream<Uint8Array>).getReader();
  return async (): Promise<string> => new TextDecoder().decode((await reader.read()).value);
};

describe('news', () => {
  it('come to who listens to the application, once they are stored, in order', async () => {
    const [heard, elsewhere] = [await hear(id), await hear(other)];
    await edit(0);
    await edit(1);
    await release(id, ada, 2, {});
    await vi.waitFor(() => expect(heard).toEqual(['draft 1', 'draft 2', 'release']));
    expect(elsewhere).toEqual([]);
  });

  it('are not told of what was refused', async () => {
    const heard = await hear(id);
    const gone = {
      do: 'removeLine',
      gate: 's_stores',
      line: newLine({ kind: 'everyone' }, 'see'),
      at: 0,
    } as const;
    await expect(change(id, ada, 0, { edit: gone })).rejects.toThrow();
    await edit(0);
    await vi.waitFor(() => expect(heard).toEqual(['draft 1']));
  });

  it('go on after the line to the database broke, and say that some may have been missed', async () => {
    const heard = await hear(id);
    await database().execute(
      sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and query = 'listen zinc_news'`,
    );
    await vi.waitFor(() => expect(heard).toEqual(['missed']), { timeout: 10_000 });
    await hear(id);
    await edit(0);
    await vi.waitFor(() => expect(heard).toEqual(['missed', 'draft 1']));
  });

  it('are sent as events that nothing holds back, until who listens has gone', async () => {
    const gone = new AbortController();
    const response = newsStream(id, gone.signal, listener('a'));
    stops.push(() => gone.abort());
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    const next = reading(response);
    expect(await next()).toBe('retry: 2000\n\n');
    await hear(id);
    await edit(0);
    expect(await next()).toBe('data: draft 1\n\n');
  });

  it('are sent to nobody who has lost the right to hear them: the session, or the application', async () => {
    for (const loses of ['session', 'application'] as const) {
      const token = await openSession({ audience: 'studio', builderId: bo });
      const reader = { id: bo, name: 'bo', token };
      const next = reading(
        newsStream(id, new AbortController().signal, {
          ...listener(bo),
          may: () => isStillBuilder(id, reader),
        }),
      );
      expect(await next()).toBe('retry: 2000\n\n');
      await hear(id);
      if (loses === 'session') await endSession(token);
      else await database().delete(memberships).where(eq(memberships.builderId, bo));
      await edit(loses === 'session' ? 0 : 1);
      expect(await next()).toBe('');
    }
  });

  it('are sent to one builder so many times at once, and again when some have gone', () => {
    const open = (by: string): AbortController => {
      const gone = new AbortController();
      stops.push(() => gone.abort());
      newsStream(id, gone.signal, listener(by));
      return gone;
    };
    const all = Array.from({ length: 24 }, () => open('b'));
    expect(() => open('b')).toThrow(expect.objectContaining({ status: 429 }));
    open('c');
    all[0]?.abort();
    open('b');
  });
});
