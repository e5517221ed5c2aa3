import { eq } from 'drizzle-orm';
import { database } from '@/server/database/client';
import { sweeps } from '@/server/database/schema';
import { startSweep } from '@/server/proving/sweep/sweeps';
import { wrong, WrongInput } from './failure';
import type { ReportedCase } from './junit';
import { applicationCalled, withDatabase } from './store';

const LOOK_EVERY_MS = 1000;
/** So long a server has to begin. */
const BEGINS_WITHIN_MS = 30_000;

type Sweep = typeof sweeps.$inferSelect;

/** Lets the running server be swept, and waits; `tell` is told how far it is. */
export const swept = (
  slug: string,
  what: { readonly released: boolean; readonly whole: boolean },
  tell: (sweep: Sweep) => void,
): Promise<Sweep> =>
  withDatabase(async () => {
    const id = await startSweep(await applicationCalled(slug), null, what);
    const begun = Date.now();
    for (;;) {
      const [sweep] = await database().select().from(sweeps).where(eq(sweeps.id, id));
      if (!sweep)
        throw new WrongInput([
          wrong(
            'APPLICATION',
            'The application has been deleted in the meantime.',
            'Choose another application.',
          ),
        ]);
      if (!['waiting', 'running', 'stopping'].includes(sweep.state)) return sweep;
      if (sweep.state === 'waiting' && Date.now() - begun > BEGINS_WITHIN_MS) {
        await database().update(sweeps).set({ state: 'stopped' }).where(eq(sweeps.id, id));
        throw new WrongInput([
          wrong(
            'The server',
            'No server is running to carry out the sweep.',
            'Start the server with bin/start and try again.',
          ),
        ]);
      }
      tell(sweep);
      await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    }
  });

/** A sweep as a report: a case for each surprise, and one that stands for all that came as it should. */
export const sweptAsCases = (sweep: Sweep): ReportedCase[] => [
  {
    name: `${sweep.asked} requests as ${sweep.viewers} viewers`,
    of: 'sweep',
    ...(sweep.state !== 'done' && { error: sweep.failure ?? `The sweep was ${sweep.state}.` }),
  },
  ...sweep.surprises.map(({ viewer, request, said, times = 1 }) => ({
    name: request,
    of: viewer,
    failure: times > 1 ? `${said} (${times} times)` : said,
  })),
];
