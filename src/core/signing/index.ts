/** Signing off: what was confirmed, and what is otherwise since. */
export { canonicalJson } from './canonical';
export { type ChangedCell, changedCells, gains, type Standing } from './compare';
