/** How two terms of a record can be compared, each by its sign in the text form and in SQL. Others are made of these. */
export type Test = '=' | '<' | '<=' | 'contains' | 'starts with' | 'ends with';

interface OperatorKind {
  /** The test that it is, perhaps with the sides turned round, or its opposite. */
  readonly test: Test;
  readonly turned?: boolean;
  readonly not?: boolean;
  /** Of which values it can be asked. */
  readonly asks: 'equality' | 'order' | 'words';
  /** Other ways to write it than its name. */
  readonly also?: readonly string[];
  /** Between what is compared: in the condition editor, and in the filter of a list. */
  readonly words: string;
  /** What it means, for who is about to write it. */
  readonly about: string;
}

/** All operators that there are, by how the text form writes them; each with everything about it. */
export const OPERATORS = {
  '=': { test: '=', asks: 'equality', also: ['=='], words: 'is', about: 'is' },
  '!=': { test: '=', not: true, asks: 'equality', also: ['<>'], words: 'is not', about: 'is not' },
  '<': { test: '<', asks: 'order', words: 'is less than, before', about: 'less than or before' },
  '<=': { test: '<=', asks: 'order', words: 'is at most', about: 'at most' },
  '>': {
    test: '<',
    turned: true,
    asks: 'order',
    words: 'is more than, after',
    about: 'greater than or after',
  },
  '>=': { test: '<=', turned: true, asks: 'order', words: 'is at least', about: 'at least' },
  contains: { test: 'contains', asks: 'words', words: 'contains', about: 'contains this text' },
  'starts with': { test: 'starts with', asks: 'words', words: 'starts with', about: 'starts with this text' },
  'ends with': { test: 'ends with', asks: 'words', words: 'ends with', about: 'ends with this text' },
} as const satisfies Readonly<Record<string, OperatorKind>>;

export type Operator = keyof typeof OPERATORS;

/** The operators, in the order in which they are offered. */
export const COMPARISONS = Object.keys(OPERATORS) as Operator[];

/** What there is to know of an operator. */
export const operatorKind = (operator: Operator): OperatorKind => OPERATORS[operator];

/** The operators that make sense where values can be asked so: of all of them whether they are the same. */
export const operatorsThatAsk = (asks: OperatorKind['asks']): readonly Operator[] =>
  COMPARISONS.filter((one) => OPERATORS[one].asks === 'equality' || OPERATORS[one].asks === asks);
