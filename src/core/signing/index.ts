/** Signing off: what was confirmed, what is otherwise since, and what made it so. */
export { canonicalJson } from './canonical';
export { type Cause, causesOf, personSays } from './causes';
export { changedCells, gains, type AccessSnapshot } from './compare';
export { changedPeople, otherwiseBetween } from './otherwise';
