import type { Access, Circumstances, Viewer } from '@/core/access';
import type { HeldUnlock } from '../database/schema';

/** Somebody who looks as another person. */
interface ActingAs {
  readonly id: string;
  readonly name: string;
  /** When it ends by itself, in milliseconds since 1970. */
  readonly until: number;
  /** May anything be changed meanwhile? */
  readonly changes: boolean;
  /** Do they get all that the other person gets? Else what both may see. */
  readonly full: boolean;
}

/** One request to a released application: who asks, and what they get. */
export interface Visit {
  readonly applicationId: string;
  readonly slug: string;
  readonly name: string;
  /** The number of the release in force. */
  readonly release: number;
  readonly viewer: Viewer;
  readonly access: Access;
  /** Of this very request: `access` may be one that an earlier request made for somebody alike. */
  readonly circumstances: Circumstances;
  /** What others have unlocked for this session, and has not ended. */
  readonly unlocked: readonly HeldUnlock[];
  /** Absent for a signed-out visitor. In a stand-in, the person as whom is looked. */
  readonly person?: { readonly id: string; readonly name: string; readonly startScreen: string | null };
  /** Who really is there, standing in for `person`; absent where people look as themselves. */
  readonly standing?: ActingAs;
  /** May they look as others? */
  readonly mayStandIn: boolean;
  readonly token?: string;
}
