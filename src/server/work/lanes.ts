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
