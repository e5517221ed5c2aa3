import type { Answer } from '../../access/deciding/level';
import type { ElementKind } from '../../model/tree';

/** Which records somebody gets otherwise than before, told of some that there are. */
export interface OtherRecords {
  /** The person whom it is told of. */
  readonly of: string;
  readonly gained: readonly string[];
  readonly lost: readonly string[];
  /** How many that is in all, of how many looked at. */
  readonly counts: { readonly gained: number; readonly lost: number; readonly of: number };
}

/** People whose access changes in the same way. */
export interface AffectedGroup {
  readonly before: Answer;
  readonly after: Answer;
  /** The first of them by name, and how many others there are. */
  readonly names: readonly string[];
  readonly more: number;
  readonly records?: OtherRecords | undefined;
  /** Not now: at another time, or with another session. */
  readonly elsewhen: boolean;
}

/** What a release would do to one element. */
export interface Effect {
  readonly element: string;
  readonly name: string;
  readonly kind: ElementKind;
  readonly moved: readonly AffectedGroup[];
}

/** Whether people get more than before, less, or other records. */
export type Direction = 'gain' | 'lose' | 'other';

export const directionOf = ({
  before,
  after,
  records,
}: Omit<AffectedGroup, 'names' | 'more' | 'elsewhen'>): Direction => {
  const [was, is] = [before.least + before.most, after.least + after.most];
  if (is !== was) return is > was ? 'gain' : 'lose';
  if (!records || records.counts.gained === records.counts.lost) return 'other';
  return records.counts.lost === 0 ? 'gain' : records.counts.gained === 0 ? 'lose' : 'other';
};

/** The same people get more, or less, of many elements: what follows from one change. */
export interface Following {
  readonly direction: Direction;
  readonly names: readonly string[];
  readonly more: number;
  readonly elements: readonly string[];
}

/** What becomes of stored values, and whose. */
export interface DataChange {
  readonly about: string;
  readonly said: readonly string[];
  /** Values that do not fit, with what their record is called. */
  readonly examples: readonly { readonly record: string; readonly value: string }[];
}

/** What a release would change, as it is reviewed. */
export interface Review {
  /** The draft revision that this is a review of: what a release then names. */
  readonly revision: number;
  /** What the application is called in the draft. */
  readonly name: string;
  /** The release in force; undefined before the first. */
  readonly number: number | undefined;
  /** What of the live records comes to be open, and to whom: kinds of viewers, and people by name. */
  readonly opens: readonly {
    readonly about: string;
    readonly what: readonly string[];
    readonly kinds: readonly string[];
    readonly names: readonly string[];
    readonly more: number;
  }[];
  /** What gives power, with those who hold it. */
  readonly power: readonly {
    readonly about: string;
    readonly said: string;
    readonly names?: readonly string[];
    readonly more?: number;
  }[];
  readonly changes: readonly {
    readonly about: string;
    readonly done: readonly string[];
    readonly effect: Effect | undefined;
    /** It asks for the time or for what a session holds: what it does then may be told by `done` alone. */
    readonly asksWhen: boolean;
    /** Elsewhere. */
    readonly following: readonly Following[];
  }[];
  /** What becomes of the live records. */
  readonly data: readonly DataChange[];
  /** What follows from roles, groups and settings. */
  readonly following: readonly Following[];
  /** How many gain something somewhere, how many lose something, and how many get other records only. */
  readonly gaining: number;
  readonly losing: number;
  readonly others: number;
}

/** What an edit would change, in short: names of people, and whether those who are signed out are among them. */
export interface EditEffect {
  readonly gaining: readonly string[];
  readonly losing: readonly string[];
  readonly signedOut: { readonly gains: boolean; readonly loses: boolean };
  /** Roles, groups and who is signed in, by name: also where nobody is any of these yet. */
  readonly kinds: { readonly gaining: readonly string[]; readonly losing: readonly string[] };
  /** The elements whose access changes, by name. */
  readonly elements: readonly string[];
}
