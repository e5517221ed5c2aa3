'use client';

import {
  canBeBetween,
  canBeOneOf,
  type Condition,
  type Operand,
  operatorsFor,
  type Scope,
  type Type,
  firstConstant,
} from '@/core/condition';

/** How an operand of a type can be asked of, with the condition that it then is. */
export function waysToAsk(scope: Scope, left: Operand, type: Type, right: Operand): Map<string, Condition> {
  const ways = new Map<string, Condition>();
  for (const compare of operatorsFor(type)) ways.set(compare, { compare, left, right });
  const first = 'value' in right ? right.value : firstConstant(scope.definition, type);
  if (canBeBetween(type)) ways.set('is between', { between: left, from: right, to: right });
  if (canBeOneOf(type)) ways.set('is one of', { oneOf: left, values: [first] });
  if (type.kind === 'unit') ways.set('in unit', { inUnit: left, unit: right });
  if (!('clock' in left)) {
    ways.set('is empty', { empty: left });
    ways.set('is not empty', { not: { empty: left } });
  }
  return ways;
}
