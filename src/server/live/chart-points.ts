import type { ChartPoint } from '@/core/access';
import { type Definition, type EntityField, showValue, unitsOf } from '@/core/model';
import type { Counted } from '../records/read';

/** A chart's points, in the order in which what it counts by stands, and in words. What has nothing there comes last. */
export function chartPoints(
  definition: Definition,
  counted: readonly Counted[],
  by: EntityField,
  shows: 'count' | 'sum' | 'average',
  of: EntityField | undefined,
): readonly ChartPoint[] {
  const order = orderOf(definition, by);
  return counted
    .toSorted((a, b) => order(a.key) - order(b.key))
    .map((one) => {
      const value = shows === 'count' ? String(one.count) : (one[shows] ?? '0');
      const type = of?.type ?? { kind: 'number' as const, decimals: 0 };
      return {
        label: labelOf(definition, by, one.key),
        value: Number(value),
        text: showValue(type, value, definition),
      };
    });
}

/** Options, units and yes and no as they are listed; months as they come. */
function orderOf(definition: Definition, { type }: EntityField): (key: string | null) => number {
  const keys =
    type.kind === 'choice'
      ? type.options.map(({ id }) => id)
      : type.kind === 'unit'
        ? unitsOf(definition).map(({ id }) => id)
        : type.kind === 'boolean'
          ? ['true', 'false']
          : [];
  return (key) => {
    if (key === null) return Infinity;
    const at = keys.indexOf(key);
    return at < 0 ? keys.length : at;
  };
}

function labelOf(definition: Definition, { type }: EntityField, key: string | null): string {
  if (key === null) return 'none';
  if (type.kind === 'boolean') return showValue(type, key === 'true', definition);
  if (type.kind !== 'date') return showValue(type, key, definition) || key;
  const month = new Date(`${key}-01T00:00:00Z`);
  return Number.isNaN(month.getTime())
    ? key
    : month.toLocaleDateString(definition.language, { month: 'short', year: 'numeric', timeZone: 'UTC' });
}
