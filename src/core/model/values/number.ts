import type { ValueType } from '../value-type';
import { DECIMAL, decimalIn, decimalSchema, placesOf } from './decimal';
import { formatsOf } from './formats';
import type { ValueKind } from './kind';

type NumberType = Extract<ValueType, { kind: 'number' }>;

const label = ({ decimals }: NumberType): string =>
  decimals === 0 ? 'whole number' : `number, ${decimals} ${decimals === 1 ? 'decimal' : 'decimals'}`;

export const NUMBER: ValueKind<NumberType> = {
  ...DECIMAL,
  choices: () => [
    ['Whole number', { kind: 'number', decimals: 0 }],
    ['Number, 2 decimals', { kind: 'number', decimals: 2 }],
  ],
  label,
  places: ({ decimals }) => decimals,
  schema: ({ decimals }) => decimalSchema(decimals),
  key: ({ decimals }) => String(decimals),
  holdsAll: (from, to) => from.decimals <= to.decimals,
  // A decimal as a text keeps all its digits.
  show: (value, manner) => formatsOf(manner).number.format(value as unknown as number),
  reader:
    ({ decimals }) =>
    (text) => {
      const found = decimalIn(text);
      return found !== undefined && placesOf(found) <= decimals ? found : undefined;
    },
};
