import * as yup from 'yup';
import type { ValueType } from '../value-type';
import type { ValueKind } from './kind';

const YES = /^(yes|y|true|x|1)$/i;
const NO = /^(no|n|false|0)$/i;

/** A cell read as yes or no. */
export function booleanIn(cell: string): boolean | undefined {
  return YES.test(cell) ? true : NO.test(cell) ? false : undefined;
}

export const BOOLEAN: ValueKind<Extract<ValueType, { kind: 'boolean' }>> = {
  form: 'boolean',
  literal: 'truth',
  family: 'boolean',
  asks: 'equality',
  oneOf: false,
  sentence: () => 'true or false',
  constant: () => undefined,
  example: 'true',
  choices: () => [['Yes or no', { kind: 'boolean' }]],
  label: () => 'yes or no',
  schema: () => yup.boolean(),
  show: (value) => (value ? 'Yes' : 'No'),
  reader: () => booleanIn,
  countedBy: 2,
};
