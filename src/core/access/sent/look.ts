import type { Id } from '../../model/id';
import type { Value, Values } from '../../model/value-type';
import type { Answer } from '../deciding/level';
import type { Outcome } from './shown-page';
import type { ShownFrame } from './shown';

/** What a viewer gets at an address: as in a release, where who is signed out is led to sign in. */
export type LookOutcome = Outcome | { readonly is: 'sign-in' } | { readonly is: 'nothing-open' };

/** What a pane or the canvas draws. Nothing that the viewer may not see is in `outcome` and `frame`. */
export interface LookPage {
  /** The draft's revision; absent for a release. */
  readonly revision?: number;
  readonly viewerName: string;
  /** Where one is: the address asked for, or where it sent. */
  readonly address: string;
  readonly sentFrom?: string;
  readonly outcome: LookOutcome;
  readonly frame: ShownFrame;
  /**
   * What the viewer gets of what is in the menus and on the screen at this address, open or not, on its record:
   * levels only, for telling panes apart.
   */
  readonly levels: Readonly<Record<Id, Answer>>;
  /** Which screens open for the viewer at all. */
  readonly screens: Readonly<Record<Id, Answer>>;
  /** What opening the screen has set in the session, by id: the pane holds it from now on. */
  readonly sets?: Readonly<Record<Id, Value | null>>;
  /** How many records are other ones in this pane. */
  readonly changes: number;
}

/** "I should be able to see this": a note of somebody who was refused, with the state that it was decided in. */
export interface Note {
  readonly id: string;
  readonly person: Id;
  readonly name: string;
  readonly address: string;
  /** The locked element, where it is about one. */
  readonly element: Id | null;
  readonly text: string;
  readonly release: number;
  readonly session: Values;
  /** Milliseconds since 1970. */
  readonly moment: number;
}
