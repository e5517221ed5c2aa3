import { eq, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Access } from '@/core/access';
import { type Definition, type Id, treeOf } from '@/core/model';
import { Already } from '@/core/sweep';
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
import { openSwept } from '@/server/proving/sweep/session';
import type { SweptViewer } from '@/server/proving/sweep/viewer';
import { viewersOf } from '@/server/proving/sweep/viewers';
import { liveCookie } from '@/server/security/sessions';
import { application, emptyDatabase } from './setting';
import { installed, person, visitOf } from './visits';

/** Larkfield with a catalogue that is open to everybody in the hours of the office. */
const definition: Definition = {
  ...LARKFIELD,
  gates: {
    ...LARKFIELD.gates,
    s_catalogue: {
      lines: [{ id: 'open', who: { kind: 'everyone' }, what: 'see', when: { meets: 'c_hours' } }],
    },
  },
};

let copy: Copy;
let viewers: SweptViewer[];

beforeAll(async () => {
  await emptyDatabase();
  await installed();
  await application(definition);
  copy = planCopy(definition, []);
  await putCopy(LARKFIELD.id, copy);
  const elsewhere = await person(LARKFIELD.id, 'elsewhere@x.example');
  viewers = viewersOf(copy, async () => (await visitOf(LARKFIELD.id, elsewhere)).token ?? '');
});

/** What the element's id is in the copy. */
const inCopy = (own: Id): Id => [...copy.ids].find(([, id]) => id === own)?.[0] ?? '';

const workOf = () => ({
  ...{ copy, known: knownIn(copy), comparing: new Comparing(copy) },
  already: new Already(knownIn(copy)),
  whole: false,
});

/** The same viewer, now. */
const asNow = ({ name }: SweptViewer): SweptViewer => {
  const now = viewers.find((one) => one.name === name.replace(/, on .*/, ''));
  if (!now) throw new Error(`There is no other viewer than ${name}`);
  return now;
};

async function visitAs(viewer: SweptViewer): Promise<Visit> {
  const { name } = await liveCookie(copy.slug);
  const { cookie } = await openSwept(viewer, copy, name);
  const found = await visit(copy.slug, {
    get: (one) => (one === name && cookie ? { value: cookie.slice(name.length + 1) } : undefined),
  });
  if (!found) throw new Error('There is no copy');
  return found;
}

describe('a sweep of Larkfield', () => {
  it('asks those for whom it matters also at other times, by the clock of the copy', async () => {
    const shifted = viewers.filter(({ clockAhead }) => clockAhead);
    expect(shifted.some(({ signedOut }) => signedOut)).toBe(true);
    expect(shifted.some(({ signedOut }) => !signedOut)).toBe(true);
    const timed = ['b_courier', 's_catalogue'].map(inCopy);
    const gets = (access: Access) => timed.map((id) => access.answer(access.element(id)).most);
    const differing = new Set<string>();
    for (const one of shifted) {
      const now = asNow(one);
      const [then, today] = [await visitAs(one), await visitAs(now)];
      const should = one.access(Date.now()).held.circumstances.moment;
      expect(Math.abs(then.circumstances.moment - should)).toBeLessThan(60_000);
      expect(gets(then.access)).toEqual(gets(one.access(Date.now())));
      expect(gets(today.access)).toEqual(gets(now.access(Date.now())));
      differing.add(gets(then.access).join() === gets(today.access).join() ? '' : now.name);
    }
    // Not each thing is otherwise at each of the times, whatever the time is now.
    differing.delete('');
    expect(differing.size).toBeGreaterThan(0);
  });

  it('asks then only what should come otherwise', () => {
    for (const one of viewers) {
      if (!one.clockAhead) continue;
      const work = workOf();
      const { once, cases: now } = askedAs(asNow(one), Date.now(), work);
      once.note();
      const then = askedAs(one, Date.now(), work).cases;
      expect(then.length).toBeGreaterThan(0);
      expect(then.length).toBeLessThan(now.length * 0.7);
    }
  });

  it('asks on when rights have ended, in the session in which they were held', async () => {
    const ending = viewers.filter(({ end }) => end);
    expect(ending.length).toBe(copy.definition.roles.length + 1);
    const all = treeOf(copy.definition).elements;
    const gets = (access: Access) => all.map((element) => access.answer(element).most);
    for (const one of ending) {
      const held = await visitAs(one);
      expect(gets(held.access)).toEqual(gets((one.besides ?? one.access)(Date.now())));
      await one.end?.();
      const after = await visitAs({ ...one, open: () => Promise.resolve(held.token) });
      expect(gets(after.access)).toEqual(gets(one.access(Date.now())));
    }
  });

  it('moves no clock but that of a copy', async () => {
    const move = (id: string) =>
      database().execute(sql`update applications set clock_ahead = 1e12 where id = ${id}`);
    await expect(move(LARKFIELD.id)).rejects.toMatchObject({ cause: { constraint: 'applications_clock' } });
    await move(copy.id);
    const { circumstances } = await visitOf(LARKFIELD.id);
    expect(Math.abs(circumstances.moment - Date.now())).toBeLessThan(60_000);
  });

  it('expects of unlocking what the server does, whoever gives a password for whom', async () => {
    const work = workOf();
    const client = { address: '127.0.0.1', device: undefined };
    const done = { yes: 0, no: 0 };
    for (const viewer of viewers) {
      const visited = await visitAs(viewer);
      await viewer.end?.();
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
