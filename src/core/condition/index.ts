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
  partsOf,
} from './condition';
export { CAPITALS, SMALL } from './fold';
export { all, type Formula, holds, type RequiredResult, tester } from './formula';
export { pathWord } from './names';
export { OPERATORS, type Operator, type Test } from './operators';
export { type Offers, suggest, type TextProblem } from './parse';
export { REGISTERED } from './registered';
export type { ConditionStep } from './explain-condition';
export {
  attributesOf,
  canBeBetween,
  canBeOneOf,
  comparedKind,
  constantInWords,
  comparable,
  entityFor,
  firstConstant,
  operatorsFor,
  readConstant,
  readConstants,
  type Scope,
  type Type,
  typeOf,
} from './type';
