import type { Id } from '../model/id';
import type { KeyedViewer } from '../access/deciding/viewer-key';
import type { Edit } from '../edit/edits/edit';
import type { Context } from './context';

/** How bad it is: it lets somebody in, or it is probably not meant. */
export type Rank = 'lets-in' | 'not-meant';

/** What a mend does to access: some get less by it and nobody more, some get more and nobody less, or nobody's changes. */
export type Does = 'closes' | 'opens' | 'nothing';

/**
 * What mends it, with what it does in words: an edit, or taking an element away with all that names it, which is worked
 * out when it is asked for (`editOfMend`).
 */
export type Fix = { readonly says: string; readonly does: Does } & (
  { readonly edit: Edit } | { readonly removes: Id }
);

/** A mend as a check proposes it; it is offered only where it does what it says (`keepsPromise`). */
export type ProposedMend = Fix & {
  /** Whom its sentence names, and no others may be touched; without it the sentence speaks of everybody. */
  readonly to?: readonly AffectedViewer[];
};

/** A kind of viewer, or a person who stands for all who are alike, themselves among them. */
export interface AffectedViewer {
  readonly key: string;
  readonly alike: readonly KeyedViewer[];
}

/** The keys of all whom it touches. */
export const keysOf = (whom: readonly AffectedViewer[]): string[] =>
  whom.flatMap(({ alike }) => alike.map(({ key }) => key));

/** Where something is probably wrong. */
interface FoundPlace {
  /** What is wrong, and why, in one sentence. */
  readonly reason: string;
  /** What it is about: elements, or roles, groups and the like; the one to look at first comes first. */
  readonly places: readonly Id[];
  /** Whom it touches; empty where it is about nobody in particular. */
  readonly whom: readonly AffectedViewer[];
  readonly mends: readonly Fix[];
}

/** Something that is probably wrong with a definition. */
export interface Finding extends FoundPlace {
  readonly kind: string;
  readonly rank: Rank;
}

/** What a check finds, before its mends are tried. */
export interface Suspect extends FoundPlace {
  readonly mends: readonly ProposedMend[];
}

/** One sort of finding: what it is called, what it means, and how it is found. */
export interface Check {
  /** Never changes: what was set aside names it. */
  readonly kind: string;
  readonly rank: Rank;
  /** What it says of an application, in a few words. */
  readonly title: string;
  readonly find: (context: Context) => Iterable<Suspect>;
}
