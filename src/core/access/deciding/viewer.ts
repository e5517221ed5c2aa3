import type { Line, Who } from '../../model/gate';
import type { Id } from '../../model/id';
import type { Values } from '../../model/value-type';

/** A role given to a person, perhaps in one unit only, perhaps for a time: `[from, until)`, RFC 3339. */
export interface Assignment {
  readonly role: Id;
  readonly unit?: Id | undefined;
  readonly from?: string | undefined;
  readonly until?: string | undefined;
}

/** A person of the application, as builders and decisions know them. */
export interface Person {
  readonly id: Id;
  readonly name: string;
  /** Not switched off. */
  readonly active: boolean;
  readonly assignments: readonly Assignment[];
  /** By the attribute's id, `name`, `email` and `home_unit` among them. */
  readonly attributes: Values;
}

/** Through whose eyes we look. */
export type Viewer =
  | { readonly kind: 'signed-out' }
  | {
      readonly kind: 'signed-in';
      /** None for a kind of viewer, and for a made-up one. */
      readonly person?: Id;
      readonly assignments: readonly Assignment[];
      /** Of a kind of viewer they are not known yet, nor is what its session holds: then this is not there. */
      readonly attributes?: Values;
      /** Groups that a made-up viewer is in, whatever the groups' conditions say. */
      readonly groups?: readonly Id[];
    };

/** A viewer who is nobody in particular, put together to look through their eyes. */
export type MadeViewer = Omit<Extract<Viewer, { kind: 'signed-in' }>, 'kind' | 'person'> & {
  /** What is set in its session when one begins to look as it. */
  readonly session?: Values;
};

/** A made-up viewer that was named and kept. */
export interface KeptViewer {
  readonly id: Id;
  readonly name: string;
  readonly viewer: MadeViewer;
}

export const SIGNED_OUT: Viewer = { kind: 'signed-out' };
export const SIGNED_IN: Viewer = { kind: 'signed-in', assignments: [] };
export const viewerOfGroup = (group: Id): Viewer => ({ kind: 'signed-in', assignments: [], groups: [group] });
/**
 * Whoever holds just this role, everywhere and for good, of whom nothing else is known (access.md 7).
 *
 * @example
 * viewerOfRole('curator') // → { kind: 'signed-in', assignments: [{ role: 'curator' }] }
 */
export const viewerOfRole = (role: Id): Viewer => ({ kind: 'signed-in', assignments: [{ role }] });

/** Is it nobody in particular: a bare role, a group, or whoever is signed in (access.md 7)? */
export const isKind = (viewer: Viewer): boolean =>
  viewer.kind === 'signed-in' && viewer.attributes === undefined;

/**
 * A person as a viewer. Who is switched off, or has not confirmed their address yet, is nobody: signed out.
 *
 * @example
 * const ines = { id: 'p1', name: 'Ines', active: false, assignments: [], attributes: {} };
 * viewerOfPerson(ines) // → { kind: 'signed-out' }
 * viewerOfPerson({ ...ines, active: true }).kind // → 'signed-in'
 */
export const viewerOfPerson = ({ id, active, assignments, attributes }: Person): Viewer =>
  active ? { kind: 'signed-in', person: id, assignments, attributes } : SIGNED_OUT;

/** One locked element, opened for one session and one record: a line that gives a level there. */
export interface Unlocked {
  readonly element: Id;
  readonly record: Id;
  readonly what: Extract<Line['what'], 'see' | 'edit'>;
}

/** What is known beside the viewer when something is decided. */
export interface Circumstances {
  /** Milliseconds since 1970, UTC. One for a whole request. */
  readonly moment: number;
  /** The values of the viewer's session, by id. */
  readonly session?: Values;
  readonly unlocked?: readonly Unlocked[];
  /** While a builder looks: conditions of lines that are taken as true or as false, by the line's id. */
  readonly taken?: Readonly<Record<Id, boolean>>;
  /**
   * Not this moment and session, but any: what asks for a session value or for the time has a least and a most, as
   * what asks who one is has for a kind of viewer.
   */
  readonly whenever?: boolean;
}

/** This moment, with nothing set in the session. */
export const rightNow = (): Circumstances => ({ moment: Date.now() });

/** Does the assignment count at this moment? */
export function counts({ from, until }: Assignment, moment: number): boolean {
  return (
    (from === undefined || Date.parse(from) <= moment) && (until === undefined || moment < Date.parse(until))
  );
}

/** A key for whom a line speaks of, as compiled access keeps its sets under it. */
export function subjectOf(who: Who): string {
  switch (who.kind) {
    case 'role':
      return who.exactly ? `exactly:${who.role}` : `role:${who.role}`;
    case 'privilege':
      return `privilege:${who.privilege}`;
    case 'group':
      return `group:${who.group}`;
    case 'unit':
      return `unit:${who.unit}`;
    case 'person':
      return `person:${who.person}`;
    case 'everyone':
    case 'signed-in':
    case 'signed-out':
      return who.kind;
  }
}
