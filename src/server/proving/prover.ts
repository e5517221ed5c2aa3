import { log, errorForLog } from '../log';
import { workAlone } from './alone';
import { prove, toBeProved } from './prove';

/**
 * Run beside each server, so that what takes long keeps nobody waiting: after each change of a draft or of people it
 * works out what is probably wrong and which expectations break, and tells who is looking.
 */

/** So often it is looked for what has not been proved for a day. */
const LOOKING_MS = 10 * 60_000;

const waiting = new Set<string>();
let working = false;

async function work(): Promise<void> {
  if (working) return;
  working = true;
  for (const id of waiting) {
    waiting.delete(id);
    await prove(id).catch((error: unknown) =>
      log.warn(errorForLog(error), 'An application could not be checked'),
    );
  }
  working = false;
}

/** What was changed while nobody worked, and what was proved so long ago that a day or a role may be over by now. */
async function catchUp(since?: Date): Promise<void> {
  for (const id of await toBeProved(since)) waiting.add(id);
  await work();
}

workAlone({
  lock: 1_903_117,
  begin: async () => {
    // By another version of the program other things may be found: all is looked through once.
    await catchUp(new Date());
    setInterval(() => {
      catchUp().catch((error: unknown) => log.warn(errorForLog(error), 'The check for expired dates failed'));
    }, LOOKING_MS);
  },
  hear: (applicationId, what) => {
    if (!['draft', 'people', 'expected', 'release'].includes(what)) return;
    waiting.add(applicationId);
    void work();
  },
});
