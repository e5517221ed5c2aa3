import { log, errorForLog } from '../log';
import { workAlone } from './alone';
import { dropLeftCopies, runSweep, sweepsToRun } from './sweep/run';

/** Run beside each server: carries sweeps out, one after the other. What drafts are looked through by does not wait for it. */

/** Where the server answers beside which this runs. */
const server = process.env['ZINC_SERVER'] ?? 'http://127.0.0.1:4620';

let sweeping: Promise<void> = Promise.resolve();

function sweep(): void {
  sweeping = sweeping.then(async () => {
    for (const id of await sweepsToRun()) await runSweep(id, server);
  });
  sweeping.catch((error: unknown) => log.warn(errorForLog(error), 'A sweep was interrupted'));
}

workAlone({
  lock: 1_903_118,
  begin: async () => {
    await dropLeftCopies();
    sweep();
  },
  hear: (_, what) => {
    if (what === 'sweep') sweep();
  },
});
