/** The sweep: what every viewer should be sent, worked out by the core, to hold against what the server answers. */
import type { Id } from '../model/id';

export { Already, behindTopic } from './already';
export { acted, making, written } from './changes';
export { askingOf } from './conditions';
export { type Coverage, CoverageNotes } from './coverage';
export { idsByMark, withMarkedIds } from './marked-ids';
export { FieldNumbers, type Mark, MarkFinder, marked, personMark } from './marks';
export { sweepMoments } from './moments';
export { lacking, NOT_THERE, type Predicted, Predictor } from './predict';
export { type SweepRecord, sweepRecords } from './records';
export { isLockable, mayUnlock, unlocking } from './unlocking';

/** Something that came otherwise than the core says. */
export interface Surprise {
  /** Who was asked as, in words. */
  readonly viewer: string;
  /** The request: method and path, in the application's own addresses. */
  readonly request: string;
  /** It shows what it may not, or lacks what it should show; answers otherwise; counts others; did what it may not, or not what it should. */
  readonly what: 'shows' | 'lacks' | 'answers' | 'counts' | 'did';
  readonly said: string;
  /** The element that it is about, where it is about one. */
  readonly element?: Id | undefined;
  /** How many times the same was found, where more than once; this is the first. */
  readonly times?: number;
  /** As how many viewers. */
  readonly viewers?: number;
}
