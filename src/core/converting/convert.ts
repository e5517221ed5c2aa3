import type { Value, ValueType } from '../model/value-type';
import { readerOf, textOf } from '../model/values';
import type { ReadBy } from '../model/values/kind';

/**
 * A stored value under another type; undefined where it cannot be one. Nothing is rounded or cut: what would lose
 * something does not convert. Choices, units and records become what they are called, and the other way round.
 *
 * @example
 * convert('1,250.50', { kind: 'text' }, { kind: 'money' }, by) // → '1250.5'
 * convert('12.5', { kind: 'number', decimals: 1 }, { kind: 'number', decimals: 0 }, by) // → undefined
 */
export function convert(value: Value, from: ValueType, to: ValueType, by: ReadBy): Value | undefined {
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
