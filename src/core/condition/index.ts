export { type Atom, readAs, type Reading, type RecordFacts, type Term } from './atom';
export { bind, readingOf } from './bind';
export { addDays, momentOf, readClock, readMoment, WEEKDAYS } from './clock';
export {
  allWithin,
  operandsOf,
  BUILT_IN_ATTRIBUTES,
  CLOCK_READINGS,
  type Condition,
  type Operand,
  type Operator,
  partsOf,
} from './condition';
export { CAPITALS, SMALL } from './fold';
export { all, type Formula, holds, type Must, tester } from './formula';
export { pathWord, quoted } from './names';
export { type Offers, suggest, type TextProblem } from './parse';
export { REGISTERED } from './registered';
export type { Told } from './tell';
export {
  attributesOf,
  canBeBetween,
  canBeOneOf,
  comparable,
  entityFor,
  operatorsFor,
  readConstant,
  readConstants,
  type Scope,
  type Type,
  typeOf,
} from './type';
