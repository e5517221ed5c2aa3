import { allWithin, type Condition, operandsOf } from '../condition/condition';
import { allNamed } from '../condition/named';
import type { Definition, Entity } from '../model/definition';
import type { Line } from '../model/gate';
import type { Id } from '../model/id';
import { treeOf } from '../model/tree';

/** A condition of a line or of a list's filter, with the record that it asks of; what it names is put beside it. */
export interface ScopedCondition {
  readonly condition: Condition;
  readonly entity: Entity | undefined;
  readonly gate: Id;
  /** Undefined for a list's filter. */
  readonly line?: Line;
}

/** Where lines and lists' filters ask of the clock, or of the session: by the ids of their elements. */
export function askingOf(definition: Definition, of: 'clock' | 'session'): readonly Id[] {
  const asks = (one: Condition): boolean =>
    allWithin(one)
      .flatMap(operandsOf)
      .some((each) => of in each);
  const found = lineScopes(definition).filter(({ condition }) => asks(condition));
  return [...new Set(found.map(({ gate }) => gate))];
}

const known = new WeakMap<Definition, readonly ScopedCondition[]>();

/** All conditions of lines and lists, and beside each those that it names. */
export function lineScopes(definition: Definition): readonly ScopedCondition[] {
  let found = known.get(definition);
  if (!found) known.set(definition, (found = [...scopedIn(definition)]));
  return found;
}

function* scopedIn(definition: Definition): Generator<ScopedCondition> {
  const tree = treeOf(definition);
  const named = (condition: Condition): Condition[] =>
    allNamed(definition, condition).flatMap((one) => {
      const met = 'meets' in one ? definition.conditions.find(({ id }) => id === one.meets) : undefined;
      return met ? [met.condition] : [];
    });
  for (const [gate, { lines }] of Object.entries(definition.gates)) {
    const element = tree.get(gate);
    for (const line of lines)
      for (const condition of line.when ? [line.when, ...named(line.when)] : [])
        yield { condition, entity: element && tree.recordOf(element), gate, line };
  }
  for (const element of tree.elements)
    if (element.kind === 'list' && element.node.filter)
      for (const condition of [element.node.filter, ...named(element.node.filter)])
        yield { condition, entity: tree.entityOf(element.node.entity), gate: element.id };
}
