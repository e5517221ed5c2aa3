import * as yup from 'yup';
import { dayInWords, isDate } from './day';
import type { EntityField, TextCheck, Unit } from './definition';
import { FORMS_OF_TEXT } from './text-form';
import { unitsOf } from './units';
import type { Value, ValueType } from './value-type';

/** A value as read, or what is wrong with it in words for the person who wrote it. */
export type Reading = { readonly value: Value | null } | { readonly problem: string };

const decimal = (places: number): yup.StringSchema =>
  yup
    .string()
    .matches(
      places > 0 ? new RegExp(`^-?\\d{1,15}(\\.\\d{1,${places}})?$`) : /^-?\d{1,15}$/,
      places > 0
        ? `Write a number such as 1250.50, with at most ${places} digits after the point.`
        : 'Write a whole number such as 12.',
    );

const SHORT = 300;
const LONG = 10_000;

/** PostgreSQL's texts hold neither the null character nor half of a surrogate pair. */
export const isStorable = (text: string): boolean => text.isWellFormed() && !text.includes('\0');

/** Is a text one that a field of that type can hold by its length? */
export const isShortEnough = (text: string, { long }: { readonly long?: boolean }): boolean =>
  text.length <= (long ? LONG : SHORT);

function schemaOf(type: ValueType): yup.Schema {
  switch (type.kind) {
    case 'text':
      return yup
        .string()
        .max(type.long ? LONG : SHORT, ({ max }) => `At most ${max} characters.`)
        .test(
          'characters',
          'It holds characters that cannot be stored.',
          (text) => !text || isStorable(text),
        );
    case 'number':
      return decimal(type.decimals);
    case 'money':
      return decimal(2);
    case 'date':
      return yup
        .string()
        .matches(/^\d{4}-\d{2}-\d{2}$/, 'Write a date such as 2026-03-14.')
        .test('date', 'There is no such day.', (text) => text === undefined || isDate(text));
    case 'boolean':
      return yup.boolean();
    case 'choice':
      return yup.string().oneOf(
        type.options.map((option) => option.id),
        'Choose one of the options.',
      );
    case 'record':
      return yup.string().max(40, 'Choose one of the records.');
    case 'unit':
      return yup.string().max(40, 'Choose one of the units.');
  }
}

const schemas = new WeakMap<ValueType, yup.Schema>();

/**
 * Reads what somebody wrote for a field. An empty text is an empty field. Whether a pointed-to
 * record may be pointed to is not decided here.
 */
export function readValue(field: EntityField, raw: unknown): Reading {
  const value = typeof raw === 'string' && raw.trim() === '' ? null : (raw ?? null);
  if (value === null) return field.required ? { problem: `${field.name} is needed.` } : { value: null };
  let schema = schemas.get(field.type);
  if (!schema) schemas.set(field.type, (schema = schemaOf(field.type)));
  try {
    const read = schema.strict().validateSync(value) as Value;
    const problem = field.check && typeof read === 'string' ? failedCheck(field.check, read) : undefined;
    if (problem !== undefined) return { problem };
    return { value: isDecimal(field.type) ? plainDecimal(read as string) : read };
  } catch (error) {
    const wrongType = error instanceof yup.ValidationError && error.type === 'typeError';
    if (wrongType || !(error instanceof yup.ValidationError))
      return { problem: `${field.name} cannot hold this.` };
    return { problem: error.message };
  }
}

function failedCheck({ most, form }: TextCheck, text: string): string | undefined {
  if (most !== undefined && text.length > most) return `At most ${most} characters.`;
  return form && !FORMS_OF_TEXT[form].fits(text.trim()) ? FORMS_OF_TEXT[form].says : undefined;
}

const isDecimal = (type: ValueType): boolean => type.kind === 'number' || type.kind === 'money';

/** The one way to write a decimal: no leading or trailing zeros, no minus zero. `007.50` is `7.5`. */
export function plainDecimal(text: string): string {
  const [, sign = '', whole = '', part = ''] = /^(-?)0*(\d+?)(?:\.(\d*?)0*)?$/.exec(text) ?? [];
  const plain = part ? `${whole}.${part}` : whole;
  return plain === '0' ? '0' : sign + plain;
}

/** How values are shown: language (BCP 47), currency (ISO 4217), and what the units are called. */
export interface Manner {
  readonly language: string;
  readonly currency: string;
  readonly units: readonly Unit[];
}

interface Formats {
  readonly money: Intl.NumberFormat;
  readonly number: Intl.NumberFormat;
}

/** Making a format is slow, so each manner keeps its own. */
const formats = new WeakMap<Manner, Formats>();

function formatsOf(manner: Manner): Formats {
  let found = formats.get(manner);
  if (!found) {
    const { language, currency } = manner;
    found = {
      money: new Intl.NumberFormat(language, { style: 'currency', currency }),
      number: new Intl.NumberFormat(language, { maximumFractionDigits: 15 }),
    };
    formats.set(manner, found);
  }
  return found;
}

/** The value in words for people. A pointed-to record is not shown here: its label has doors of its own. */
export function showValue(type: ValueType, value: Value | null | undefined, manner: Manner): string {
  if (value === null || value === undefined) return '';
  switch (type.kind) {
    case 'text':
    case 'record':
      return String(value);
    case 'money':
      // A decimal as a text keeps all its digits.
      return formatsOf(manner).money.format(value as unknown as number);
    case 'number':
      return formatsOf(manner).number.format(value as unknown as number);
    case 'date':
      return dayInWords(manner.language, String(value));
    case 'boolean':
      return value ? 'Yes' : 'No';
    case 'choice':
      return type.options.find((option) => option.id === value)?.name ?? '';
    case 'unit':
      return unitsOf(manner).find((unit) => unit.id === value)?.name ?? '';
  }
}
