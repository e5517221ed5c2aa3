import * as yup from 'yup';
import { unitsOf } from '../units';
import type { ValueType } from '../value-type';
import type { ValueKind } from './kind';

export const UNIT: ValueKind<Extract<ValueType, { kind: 'unit' }>> = {
  form: 'text',
  literal: 'name',
  family: 'unit',
  asks: 'equality',
  oneOf: true,
  sentence: () => 'a unit',
  constant: (value, _, names) => (unitsOf(names).some((unit) => unit.id === value) ? value : undefined),
  listed: (_, names) => unitsOf(names),
  choices: () => [['Unit', { kind: 'unit' }]],
  label: () => 'unit',
  schema: () => yup.string().max(40, 'Choose one of the units.'),
  countedBy: 3,
};
