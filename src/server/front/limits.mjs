/**
 * What the front holds every request to. `docs/operating.md` lists each limit with what happens at it.
 * Bytes, milliseconds and numbers.
 */
export const LIMITS = {
  /** Characters of an address, with its query. */
  address: 8000,
  /** Parameters in a query. */
  parameters: 200,
  /** Bytes of a body. */
  body: 1_500_000,
  /** Bytes of a body that is a file, from someone who is signed in. */
  file: 31_000_000,
  /** A body arrives whole within this time, … */
  bodyWithin: 10_000,
  /** … a file within this time, … */
  fileWithin: 60_000,
  /** … and after three seconds at this rate at least, in bytes a second. */
  bodyRate: 1000,
  fileRate: 64_000,
  rateAfter: 3000,
  /** Bytes of all bodies in memory. */
  bodies: 128_000_000,
  /** Connections. */
  connections: 4000,
  /** Requests that are worked on at once: enough that no request waits for one that waits for the database. */
  atWork: 16,
  /** Answers that stay open: server-sent events, and files and progress on their way. */
  open: 500,
  /** One address, and one session, has at most one in so many of the connections, bodies, slots and open answers. */
  share: 4,
  /** With the database away, a request without an answer is answered after this time. */
  latest: 8000,
  /** After its reader has gone, a request counts as being worked on for this long at most. */
  letGoAfter: 5000,
  /** An answer whose reader takes longer than this gives up its slot, and stays open beside the others. */
  answerWithin: 5000,
  /** A connection on which nothing moves is closed after this time. */
  still: 120_000,
};

/** The share of one address or one session of a limit, one at least. @param {number} of */
export const shareOf = (of) => Math.max(1, Math.floor(of / LIMITS.share));
