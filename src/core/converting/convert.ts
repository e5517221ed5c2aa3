import { booleanIn, decimalIn, moneyIn } from '../making/cell';
import { readDay } from '../model/day';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import { unitsOf } from '../model/units';
import { readValue } from '../model/value';
import type { Value, ValueType } from '../model/value-type';

/** Records by what they are called, for fields that point or pointed to them. */
export interface Pointing {
  called(entity: Id, label: string): Id | undefined;
  labelOf(entity: Id, id: Id): string | undefined;
}

interface By {
  readonly definition: Pick<Definition, 'language' | 'units'>;
  readonly pointing: Pointing;
  /** `2026-11-26`: years of two figures are those around it. */
  readonly today: string;
}

/**
 * A stored value under another type; undefined where it cannot be one. Nothing is rounded or cut: what would lose
 * something does not convert. Choices, units and records become what they are called, and the other way round.
 *
 * @example
 * convert('1,250.50', { kind: 'text' }, { kind: 'money' }, by) // → '1250.5'
 * convert('12.5', { kind: 'number', decimals: 1 }, { kind: 'number', decimals: 0 }, by) // → undefined
 */
export function convert(value: Value, from: ValueType, to: ValueType, by: By): Value | undefined {
  if (from.kind === 'choice' && to.kind === 'choice') {
    const option =
      to.options.find(({ id }) => id === value) ??
      to.options.find(({ merged }) => merged?.some((id) => id === value));
    if (option) return option.id;
  }
  if (from.kind === 'record' && to.kind === 'record' && from.entity === to.entity) return value;
  const text = textOf(value, from, by)?.trim();
  return text === undefined || text === '' ? undefined : valueOf(text, to, by);
}

/** A stored value as people read and write it; undefined where it is of no such type, or names what is gone. */
export function textOf(value: Value, type: ValueType, { definition, pointing }: By): string | undefined {
  if (type.kind === 'boolean') return typeof value === 'boolean' ? (value ? 'yes' : 'no') : undefined;
  if (typeof value !== 'string') return undefined;
  switch (type.kind) {
    case 'choice':
      return type.options.find(({ id }) => id === value)?.name;
    case 'unit':
      return unitsOf(definition).find(({ id }) => id === value)?.name;
    case 'record':
      return pointing.labelOf(type.entity, value);
    default:
      return value;
  }
}

/** What somebody wrote, as a value of the type. */
function valueOf(text: string, type: ValueType, { definition, pointing, today }: By): Value | undefined {
  const named = (all: readonly { readonly id: Id; readonly name: string }[]): Id | undefined =>
    all.find(({ name }) => name.toLowerCase() === text.toLowerCase())?.id;
  switch (type.kind) {
    case 'number': {
      const found = decimalIn(text);
      return found !== undefined && fits(found, type) ? found : undefined;
    }
    case 'money':
      return moneyIn(text);
    case 'date':
      return readDay(definition.language, text, today);
    case 'boolean':
      return booleanIn(text);
    case 'choice':
      return named(type.options);
    case 'unit':
      return named(unitsOf(definition));
    case 'record':
      return pointing.called(type.entity, text);
    case 'text':
      return fits(text, type) ? text : undefined;
  }
}

const fits = (text: string, type: ValueType): boolean =>
  'value' in readValue({ id: '', name: '', type }, text);
