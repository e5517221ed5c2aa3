import { booleanIn, decimalIn, moneyIn } from '../making/cell';
import { readDay } from '../model/day';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import { unitsOf } from '../model/units';
import { isShortEnough, isStorable } from '../model/value';
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
  return text === undefined || text === '' ? undefined : readerOf(to, by)(text);
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

type Named = readonly { readonly id: Id; readonly name: string }[];

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

/**
 * Reads what people write as values of a type: numbers, money and days in the ways that they are written, options,
 * units and records by their names, or by their ids. Undefined where it does not fit. What it needs is looked up once,
 * so that it can be asked for many.
 */
export function readerOf(
  type: ValueType,
  { definition, pointing, today }: By,
): (text: string) => Value | undefined {
  const named = (all: Named): ((text: string) => Id | undefined) => {
    const ids = new Map([
      ...all.map(({ id }) => [id.toLowerCase(), id] as const),
      ...all.map(({ id, name }) => [name.trim().toLowerCase(), id] as const),
    ]);
    return (text) => ids.get(text.toLowerCase());
  };
  switch (type.kind) {
    case 'number':
      return (text) => {
        const found = decimalIn(text);
        return found !== undefined && (found.split('.')[1]?.length ?? 0) <= type.decimals ? found : undefined;
      };
    case 'money':
      return moneyIn;
    case 'date':
      return once((text) => readDay(definition.language, text, today));
    case 'boolean':
      return booleanIn;
    case 'choice':
      return named(type.options);
    case 'unit':
      return named(unitsOf(definition));
    case 'record':
      return (text) =>
        pointing.labelOf(type.entity, text) === undefined ? pointing.called(type.entity, text) : text;
    case 'text':
      return (text) => (isShortEnough(text, type) && isStorable(text) ? text : undefined);
  }
}
