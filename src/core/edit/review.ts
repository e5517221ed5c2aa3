import type { Answer } from '../access/level';
import type { ElementKind } from '../model/tree';

/** People whose access changes in the same way. */
export interface Moved {
  readonly before: Answer;
  readonly after: Answer;
  readonly names: readonly string[];
}

/** What a release would do to one element. */
export interface Effect {
  readonly element: string;
  readonly name: string;
  readonly kind: ElementKind;
  readonly moved: readonly Moved[];
}

/** What a release would change, as it is reviewed. */
export interface Review {
  /** The draft revision that this is a review of: what a release then names. */
  readonly revision: number;
  /** The release in force; undefined before the first. */
  readonly number: number | undefined;
  readonly changes: readonly {
    readonly about: string;
    readonly done: readonly string[];
    readonly effect: Effect | undefined;
  }[];
  /** Elements that nobody changed, and whose access changes all the same. */
  readonly following: readonly Effect[];
  /** How many gain something somewhere, and how many lose something. */
  readonly gaining: number;
  readonly losing: number;
}

/** What an edit would change, in short: names of people, and whether those who are signed out are among them. */
export interface EditEffect {
  readonly gaining: readonly string[];
  readonly losing: readonly string[];
  readonly signedOut: { readonly gains: boolean; readonly loses: boolean };
  /** The elements whose access changes, by name. */
  readonly elements: readonly string[];
}
