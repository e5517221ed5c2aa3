import { eq, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { EDIT } from '@/core/access';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { auditEvents } from '@/server/database/schema';
import { Refused } from '@/server/http/problem';
import { lockAgain, unlock } from '@/server/live/unlock';
import { visit } from '@/server/live/visit';
import type { Visit } from '@/server/live/who-visits';
import { askedAs } from '@/server/proving/sweep/ask';
import { Comparing } from '@/server/proving/sweep/compare';
import { type Copy, knownIn, planCopy, putCopy } from '@/server/proving/sweep/copy';
import { type SweptViewer, viewersOf } from '@/server/proving/sweep/viewers';
import { liveCookie } from '@/server/security/sessions';
import { application, emptyDatabase } from './setting';
import { installed, person, visitOf } from './visits';

let copy: Copy;
let viewers: SweptViewer[];

beforeAll(async () => {
  await emptyDatabase();
  await installed();
  await application(LARKFIELD);
  copy = planCopy(LARKFIELD, []);
  await putCopy(LARKFIELD.id, copy);
  const elsewhere = await person(LARKFIELD.id, 'elsewhere@x.example');
  viewers = viewersOf(copy, async () => (await visitOf(LARKFIELD.id, elsewhere)).token ?? '');
});

/** What the button's id is in the copy. */
const courier = (): string => [...copy.ids].find(([, id]) => id === 'b_courier')?.[0] ?? '';

async function visitAs(viewer: SweptViewer): Promise<Visit> {
  const { name } = await liveCookie(copy.slug);
  const token = await viewer.open();
  const found = await visit(copy.slug, {
    get: (one) => (one === name && token !== undefined ? { value: token } : undefined),
  });
  if (!found) throw new Error('There is no copy');
  return found;
}

describe('a sweep of Larkfield', () => {
  it('asks those for whom it matters also at other times, by the clock of their session', async () => {
    const shifted = viewers.filter(({ besides }) => besides);
    expect(shifted.length).toBeGreaterThan(0);
    const usable = (visited: Visit) => visited.access.answer(visited.access.element(courier())).most === EDIT;
    for (const one of shifted) {
      const { besides: now } = one;
      if (!now) continue;
      const [then, today] = [await visitAs(one), await visitAs(now)];
      const should = one.access(Date.now()).held.circumstances.moment;
      expect(Math.abs(then.circumstances.moment - should)).toBeLessThan(60_000);
      expect(usable(then)).toBe(one.access(Date.now()).answer(then.access.element(courier())).most === EDIT);
      expect(usable(today)).toBe(now.access(Date.now()).answer(then.access.element(courier())).most === EDIT);
    }
  });

  it('asks then only what should come otherwise', () => {
    const work = { copy, known: knownIn(copy), comparing: new Comparing(copy) };
    for (const one of viewers.filter(({ besides }) => besides)) {
      const { cases } = askedAs(one, Date.now(), work);
      expect(cases.length).toBeGreaterThan(0);
      expect(cases.length).toBeLessThan(40);
    }
  });

  it('moves no clock but that of a copy', async () => {
    const visited = await visitOf(LARKFIELD.id, await person(LARKFIELD.id, 'ahead@x.example'));
    await database().execute(sql`update sessions set clock_ahead = 1e12`);
    const { name } = await liveCookie(LARKFIELD.id);
    const again = await visit(LARKFIELD.id, {
      get: (one) => (one === name ? { value: visited.token ?? '' } : undefined),
    });
    expect(again?.person?.id).toBe(visited.person?.id);
    expect(Math.abs((again?.circumstances.moment ?? 0) - Date.now())).toBeLessThan(60_000);
    await database().execute(sql`update sessions set clock_ahead = 0`);
  });

  it('expects of unlocking what the server does, whoever gives a password for whom', async () => {
    const work = { copy, known: knownIn(copy), comparing: new Comparing(copy) };
    const client = { address: '127.0.0.1', device: undefined };
    const done = { yes: 0, no: 0 };
    for (const viewer of viewers) {
      const visited = await visitAs(viewer);
      const { cases } = askedAs(viewer, Date.now(), work);
      for (const one of cases.flatMap((each) => [each, ...('does' in each ? (each.then ?? []) : [])])) {
        const { method, path, body } = one.asking;
        // Another site is refused before all this.
        if (!path.endsWith('/api/unlock') || one.asking.headers?.['origin']) continue;
        const { element, record, ...credentials } = body as Record<
          'element' | 'record' | 'email' | 'password',
          string
        >;
        const now = await visitAs({ ...viewer, open: () => Promise.resolve(visited.token) });
        const does = await (
          method === 'POST'
            ? unlock(now, element, record, credentials, client)
            : lockAgain(now, element, record)
        ).then(
          () => true,
          (error: unknown) => {
            if (error instanceof Refused) return false;
            throw error;
          },
        );
        expect([viewer.name, one.asking, does]).toEqual([viewer.name, one.asking, 'does' in one]);
        done[does ? 'yes' : 'no']++;
      }
    }
    expect(done.yes).toBeGreaterThan(10);
    expect(done.no).toBeGreaterThan(50);
    // What was done in the copy is nothing that people did.
    expect(await database().$count(auditEvents, eq(auditEvents.applicationId, copy.id))).toBe(0);
  });
});
