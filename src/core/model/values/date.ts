import * as yup from 'yup';
import { dayInWords, isDate, readDay } from '../day';
import type { ValueType } from '../value-type';
import type { ValueKind } from './kind';

const MOST_KNOWN = 10_000;

/** The same, worked out once for each text: days stand in many rows. */
function once<T>(work: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    const found = known.get(text);
    if (found !== undefined || known.has(text)) return found as T;
    const made = work(text);
    if (known.size < MOST_KNOWN) known.set(text, made);
    return made;
  };
}

/** What days have in common, in fields and of the clock. */
export const DATE: ValueKind<Extract<ValueType, { kind: 'date' }>> = {
  form: 'text',
  literal: 'date',
  family: 'date',
  asks: 'order',
  oneOf: true,
  sentence: () => 'a date',
  constant: (value) => (isDate(value) ? value : undefined),
  example: '2026-03-14',
  start: (today) => today,
  choices: () => [['Date', { kind: 'date' }]],
  label: () => 'date',
  schema: () =>
    yup
      .string()
      .matches(/^\d{4}-\d{2}-\d{2}$/, 'Enter a date such as 2026-03-14.')
      .test('date', 'This date does not exist.', (text) => text === undefined || isDate(text)),
  show: (value, { language }) => dayInWords(language, String(value)),
  reader: (_, { definition, today }) => once((text) => readDay(definition.language, text, today)),
  countedBy: 4,
};
