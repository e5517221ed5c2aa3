import * as yup from 'yup';
import type { ValueType } from '../value-type';
import type { ValueKind } from './kind';

const SHORT = 300;
const LONG = 10_000;

/** PostgreSQL's texts hold neither the null character nor half of a surrogate pair. */
export const isStorable = (text: string): boolean => text.isWellFormed() && !text.includes('\0');

/** Is a text one that a field of that type can hold by its length? */
export const isShortEnough = (text: string, { long }: { readonly long?: boolean }): boolean =>
  text.length <= (long ? LONG : SHORT);

export const TEXT: ValueKind<Extract<ValueType, { kind: 'text' }>> = {
  form: 'text',
  literal: 'string',
  family: 'text',
  asks: 'words',
  oneOf: true,
  sentence: () => 'a text',
  constant: (value) => value,
  example: '"some text"',
  start: () => '',
  choices: () => [
    ['Text', { kind: 'text' }],
    ['Long text', { kind: 'text', long: true }],
  ],
  label: ({ long }) => (long ? 'long text' : 'text'),
  schema: ({ long }) =>
    yup
      .string()
      .max(long ? LONG : SHORT, ({ max }) => `Use at most ${max} characters.`)
      .test(
        'characters',
        'The text contains characters that cannot be stored. Remove them.',
        (text) => !text || isStorable(text),
      ),
  key: ({ long }) => (long ? 'long' : ''),
  holdsAll: (from, to) => to.long === true || from.long !== true,
  show: String,
  reader: (type) => (text) => (isShortEnough(text, type) && isStorable(text) ? text : undefined),
};
