import * as yup from 'yup';
import type { ValueType } from '../value-type';
import type { ValueKind } from './kind';

export const CHOICE: ValueKind<Extract<ValueType, { kind: 'choice' }>> = {
  form: 'text',
  literal: 'name',
  family: 'choice',
  asks: 'equality',
  oneOf: true,
  comparable: (a, b) => a.options.some((option) => b.options.some((other) => other.id === option.id)),
  sentence: ({ options }) => `one of ${options.map((option) => option.name).join(', ')}`,
  constant: (value, { options }) => (options.some((option) => option.id === value) ? value : undefined),
  listed: ({ options }) => options,
  choices: (_, newId) => [['Choice', { kind: 'choice', options: [{ id: newId(), name: 'First option' }] }]],
  label: ({ options }) => `one of ${options.length}`,
  schema: ({ options }) =>
    yup.string().oneOf(
      options.map((option) => option.id),
      'Choose one of the options.',
    ),
  key: ({ options }) =>
    options
      .map((option) => option.id)
      .sort()
      .join(' '),
  holdsAll: (from, to) => from.options.every((option) => to.options.some((one) => one.id === option.id)),
  countedBy: 1,
};
