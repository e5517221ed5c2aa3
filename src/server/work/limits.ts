/** What work beside the server's thread is held to. `docs/operating.md` lists each limit with what happens at it. */

/**
 * The lanes: how many processes work in each, and how many of them for one person. What takes a moment does not wait
 * for what takes its time.
 */
export const LANES = {
  quick: { workers: 2, each: 1 },
  long: { workers: 3, each: 2 },
  files: { workers: 3, each: 1 },
} as const;
export type Lane = keyof typeof LANES;
/** Megabytes that the objects of one process may take. */
export const MEMORY_MB = 512;
/** Megabytes of a process, buffers and all, after which it is ended rather than used again. */
export const RETIRE_MB = 400;
/** Pieces of work of one person in a lane, at work and waiting, and of all. */
export const WAITING_EACH = 12;
export const WAITING_ALL = 200;
/** Milliseconds after which work that was stopped, and did not end, is ended with its process. */
export const STOP_WITHIN = 1000;
/** Milliseconds after which a process without work is ended. One is kept, or begun anew where it is larger than so many megabytes. */
export const KEPT_MB = 200;
export const IDLE_AFTER = 60_000;
/** Milliseconds that a piece of work may take. */
export const WORK_WITHIN = 10 * 60_000;
/** Milliseconds within which the reader of a file takes its next part. */
export const READ_WITHIN = 60_000;
/** Milliseconds between two lines of progress. */
export const TELL_EVERY = 100;
