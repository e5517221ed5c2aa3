import type { ValueType } from '../value-type';
import { DECIMAL, decimalSchema, moneyIn } from './decimal';
import { formatsOf } from './formats';
import type { ValueKind } from './kind';

export const MONEY: ValueKind<Extract<ValueType, { kind: 'money' }>> = {
  ...DECIMAL,
  choices: () => [['Money', { kind: 'money' }]],
  label: () => 'money',
  places: () => 2,
  schema: () => decimalSchema(2),
  // A decimal as a text keeps all its digits.
  show: (value, manner) => formatsOf(manner).money.format(value as unknown as number),
  reader: () => moneyIn,
};
