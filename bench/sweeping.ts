import { Already } from '@/core/sweep';
import { LARKFIELD } from '@/demo/definition';
import { askAs, askedAs } from '@/server/proving/sweep/ask';
import { Asker } from '@/server/proving/sweep/asker';
import type { Case } from '@/server/proving/sweep/cases';
import { Comparing } from '@/server/proving/sweep/compare';
import { dropCopy, knownIn, planCopy, putBack, putCopy } from '@/server/proving/sweep/copy';
import { openSwept } from '@/server/proving/sweep/session';
import { viewersOf } from '@/server/proving/sweep/viewers';
import { liveCookie } from '@/server/security/sessions';
import type { Measure } from './measure';

const AT_ONCE = 6;
const VIEWERS = 6;

/** A sweep of the demo as some of its viewers, worked out, asked and compared, against the same requests by themselves. */
export async function measureSweep(address: string, applicationId: string): Promise<Measure[]> {
  const copy = planCopy(LARKFIELD, []);
  await putCopy(applicationId, copy);
  const server = new URL(address);
  const asker = new Asker(server, server.host, server.origin, AT_ONCE);
  const { name } = await liveCookie(copy.slug);
  let asked = 0;
  const progress = { stopped: false, expect: () => undefined, add: () => void asked++ };
  const work = {
    copy,
    known: knownIn(copy),
    comparing: new Comparing(copy),
    already: new Already([]),
    whole: true,
    asker,
    progress,
  };
  const viewers = viewersOf(copy, () => Promise.resolve('')).filter(({ self }) => self !== undefined);
  const everything = new Set(copy.records.map(({ id }) => id));
  const spent = { sweeping: 0, asking: 0, pages: 0 };
  let pagesAsked = 0;
  const timed = async (what: keyof typeof spent, task: () => Promise<unknown>): Promise<void> => {
    const begun = performance.now();
    await task();
    spent[what] += performance.now() - begun;
  };
  try {
    for (const viewer of viewers.slice(0, VIEWERS)) {
      const session = await openSwept(viewer, copy, name);
      const { cookie } = session;
      const { cases } = askedAs(viewer, Date.now(), work);
      const pages = cases.filter((one) => 'reads' in one && one.reads === 'page');
      await askAll(asker, cookie, pages);
      await timed('pages', () => askAll(asker, cookie, pages));
      pagesAsked += pages.length;
      await timed('sweeping', () => askAs(viewer, session, work));
      await timed('asking', async () => {
        await askAll(
          asker,
          cookie,
          cases.filter((one) => !('does' in one)),
        );
        for (const one of cases)
          if ('does' in one)
            for (const each of [one, ...(one.then ?? [])]) await asker.ask({ ...each.asking, cookie });
      });
      await putBack(copy, everything);
    }
  } finally {
    asker.end();
    await dropCopy(copy.id);
  }
  const perSecond = (ms: number, count: number): number => (count / ms) * 1000;
  return [
    {
      name: 'a sweep of the demo as some viewers, against its requests by themselves',
      ours: spent.sweeping / asked,
      against: spent.asking / asked,
      unit: 'ms a request',
      ratio: spent.sweeping / spent.asking,
      most: 1.5,
    },
    {
      name: 'requests a second of a sweep, against those when it asks pages',
      ours: perSecond(spent.sweeping, asked),
      against: perSecond(spent.pages, pagesAsked),
      unit: '/s',
      ratio: spent.pages / pagesAsked / (spent.sweeping / asked),
    },
  ];
}

async function askAll(asker: Asker, cookie: string | undefined, cases: readonly Case[]): Promise<void> {
  let next = 0;
  const worker = async (): Promise<void> => {
    for (let one = cases[next++]; one; one = cases[next++]) await asker.ask({ ...one.asking, cookie });
  };
  await Promise.all(Array.from({ length: asker.atOnce }, worker));
}
