import * as yup from 'yup';
import type { EntityField, TextCheck } from './definition';
import { FORMS_OF_TEXT } from './text-form';
import type { Value, ValueType } from './value-type';
import { kindOf } from './values';
import { plainDecimal } from './values/decimal';

/** A value as read, or what is wrong with it in words for the person who wrote it. */
export type Reading = { readonly value: Value | null } | { readonly problem: string };

const schemas = new WeakMap<ValueType, yup.Schema>();

/**
 * Reads what somebody wrote for a field. An empty text is an empty field. Whether a pointed-to
 * record may be pointed to is not decided here.
 */
export function readValue(field: EntityField, raw: unknown): Reading {
  const value = typeof raw === 'string' && raw.trim() === '' ? null : (raw ?? null);
  if (value === null) return field.required ? { problem: `${field.name} is required.` } : { value: null };
  const kind = kindOf(field.type);
  let schema = schemas.get(field.type);
  if (!schema) schemas.set(field.type, (schema = kind.schema(field.type)));
  try {
    const read = schema.strict().validateSync(value) as Value;
    const problem = field.check && typeof read === 'string' ? failedCheck(field.check, read) : undefined;
    if (problem !== undefined) return { problem };
    return { value: kind.form === 'decimal' ? plainDecimal(read as string) : read };
  } catch (error) {
    const wrongType = error instanceof yup.ValidationError && error.type === 'typeError';
    if (wrongType || !(error instanceof yup.ValidationError))
      return { problem: `This is not a valid value for ${field.name}.` };
    return { problem: error.message };
  }
}

function failedCheck({ most, form }: TextCheck, text: string): string | undefined {
  if (most !== undefined && text.length > most) return `Use at most ${most} characters.`;
  return form && !FORMS_OF_TEXT[form].fits(text.trim()) ? FORMS_OF_TEXT[form].says : undefined;
}
