import type { JobName } from './jobs';

/** What somebody waits for at every click: it takes a moment, or is answered a moment later. */
export const QUICK: ReadonlySet<JobName> = new Set([
  'change',
  'people-known',
  'who-gets',
  'why',
  'try',
  'breaking',
]);
