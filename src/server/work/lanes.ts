import type { JobName } from './jobs';

/** What somebody waits for at every click: it takes a moment, or is answered a moment later. */
export const QUICK: ReadonlySet<JobName> = new Set([
  'change',
  'first-people',
  'people-known',
  'who-gets',
  'why',
  'try',
  'breaking',
]);

/** Files that take as long as their readers do. */
export const FILES: ReadonlySet<JobName> = new Set(['list-file', 'list-file-of-look', 'records-file']);

/**
 * What is done to its end, also where its asker goes away: it takes a moment, and a page that is left has sent it all the
 * same. Whatever takes longer can be stopped, and then has changed nothing.
 */
export const TO_THE_END: ReadonlySet<JobName> = new Set([
  'change',
  'add-expectations',
  'expect-what-is',
  'import-expectations',
  'sign-off',
  'made-up',
  'take-over',
]);
