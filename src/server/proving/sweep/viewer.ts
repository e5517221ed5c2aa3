import type { Access } from '@/core/access';

/** Through whose eyes is asked: a session, and the access that the core works out for it. */
export interface SweptViewer {
  readonly name: string;
  readonly signedOut: boolean;
  /** The place in the copy's people of who asks as themselves. */
  readonly self?: number;
  /** Do they stand in for others, now or whenever they want? */
  readonly standsIn: boolean;
  /** The people whose names they may be told, by their places in the copy. */
  readonly people: ReadonlySet<number>;
  /** By how many milliseconds the copy's clock is to be ahead while they ask. */
  readonly clockAhead?: () => number;
  /** Opens the session, where there is one; what it gives is known to this process alone. */
  readonly open: () => Promise<string | undefined>;
  /** What they get, at a moment of the one clock; of who is looked as at another time, then. */
  readonly access: (moment: number) => Access;
  /** What they must be asked apart from others for, whoever gets the same. */
  readonly sort?: string;
  /** Is it their session alone that decides? Then each route is asked once for each thing that can come of it. */
  readonly brief?: boolean;
  /** What they get otherwise, or got, at a moment of the one clock: only what differs from that is asked. */
  readonly besides?: (moment: number) => Access;
  /** Ends what they had, once they have been at the application for a moment: the rest is asked after that. */
  readonly end?: () => Promise<void>;
}
