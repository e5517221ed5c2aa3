import type { Definition, Unit } from './definition';
import type { Id } from './id';

/** All units, each before those below it. */
export const unitsOf = (definition: Pick<Definition, 'units'>): Unit[] => definition.units.flatMap(withBelow);

const withBelow = (unit: Unit): Unit[] => [unit, ...unit.units.flatMap(withBelow)];

const known = new WeakMap<readonly Unit[], ReadonlyMap<Id, ReadonlySet<Id>>>();

const all = new WeakMap<readonly Unit[], readonly Id[]>();

/** The ids of all units there are. */
export function unitIds({ units }: Pick<Definition, 'units'>): readonly Id[] {
  let ids = all.get(units);
  if (!ids) all.set(units, (ids = unitsOf({ units }).map(({ id }) => id)));
  return ids;
}

/** The ids of a unit and of all below it. None where there is no such unit. */
export function unitAndBelow({ units }: Pick<Definition, 'units'>, id: Id): ReadonlySet<Id> | undefined {
  let below = known.get(units);
  if (!below) {
    below = new Map(
      unitsOf({ units }).map((unit) => [unit.id, new Set(withBelow(unit).map((one) => one.id))]),
    );
    known.set(units, below);
  }
  return below.get(id);
}
