import type { Id } from '../id';
import type { Value, ValueType } from '../value-type';
import { BOOLEAN } from './boolean';
import { CHOICE } from './choice';
import { DATE } from './date';
import type { DisplayFormat } from './formats';
import type { Named, Names, ReadBy, ValueKind } from './kind';
import { MONEY } from './money';
import { NUMBER } from './number';
import { RECORD } from './record';
import { TEXT } from './text';
import { UNIT } from './unit';

/** All types of values that there are, each with everything about it, in the order in which a builder is offered them. */
export const VALUE_KINDS: {
  readonly [K in ValueType['kind']]: ValueKind<Extract<ValueType, { readonly kind: K }>>;
} = {
  text: TEXT,
  number: NUMBER,
  money: MONEY,
  date: DATE,
  boolean: BOOLEAN,
  choice: CHOICE,
  unit: UNIT,
  record: RECORD,
};

/** What there is to know of values of the type. */
export const kindOf = <T extends ValueType>(type: T): ValueKind<T> =>
  VALUE_KINDS[type.kind] as unknown as ValueKind<T>;

/** All that a builder can choose for a field, each with what it is called. */
export const typesToChoose = (
  names: Pick<Names, 'entities'>,
  id: () => Id,
): readonly (readonly [string, ValueType])[] =>
  Object.values(VALUE_KINDS).flatMap((kind): readonly (readonly [string, ValueType])[] =>
    kind.choices(names, id),
  );

/** What tells types apart by what can be stored under them: the same key, the same values. */
export const typeKey = (type: ValueType): string => `${type.kind} ${kindOf(type).key?.(type) ?? ''}`;

/** Can each value of the one type stay as it is under the other? */
export function holdsAll(from: ValueType, to: ValueType): boolean {
  const wider = from.kind === to.kind ? kindOf(from).holdsAll : undefined;
  return wider ? wider(from, to) : typeKey(from) === typeKey(to);
}

/** The value in words for people. A pointed-to record is not shown here: its label has doors of its own. */
export function showValue(type: ValueType, value: Value | null | undefined, manner: DisplayFormat): string {
  if (value === null || value === undefined) return '';
  const { show } = kindOf(type);
  return show ? show(value, manner) : (named(listedIn(type, manner), value)?.name ?? '');
}

const named = (all: readonly Named[], value: Value): Named | undefined => all.find(({ id }) => id === value);

/** Of a type whose values are listed, all of them; else none. */
export const listedIn = (type: ValueType, { units }: Pick<DisplayFormat, 'units'>): readonly Named[] =>
  kindOf(type).listed?.(type, { units, entities: [] }) ?? [];

/** A stored value as people read and write it; undefined where it is of no such type, or names what is gone. */
export function textOf(value: Value, type: ValueType, { definition, pointing }: ReadBy): string | undefined {
  const { form, listed } = kindOf(type);
  if (form === 'boolean') return typeof value === 'boolean' ? (value ? 'yes' : 'no') : undefined;
  if (typeof value !== 'string') return undefined;
  if (listed) return named(listedIn(type, definition), value)?.name;
  return type.kind === 'record' ? pointing.labelOf(type.entity, value) : value;
}

/**
 * Reads what people write as values of a type: numbers, money and days in the ways that they are written, options,
 * units and records by their names, or by their ids. Undefined where it does not fit. What it needs is looked up once,
 * so that it can be asked for many.
 */
export function readerOf(type: ValueType, by: ReadBy): (text: string) => Value | undefined {
  const read = kindOf(type).reader?.(type, by);
  if (read) return read;
  const all = listedIn(type, by.definition);
  const ids = new Map([
    ...all.map(({ id }) => [id.toLowerCase(), id] as const),
    ...all.map(({ id, name }) => [name.trim().toLowerCase(), id] as const),
  ]);
  return (text) => ids.get(text.toLowerCase());
}
