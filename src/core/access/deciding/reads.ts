import { allNamed } from '../../condition/named';
import { allWithin, operandsOf, type ClockReading, type Condition } from '../../condition/condition';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { sectionsOf } from '../../model/tree';

/** What a definition's conditions look at beside the record: viewers who are alike in it share their access. */
export interface Dependencies {
  readonly user: readonly Id[];
  readonly session: readonly Id[];
  readonly clock: readonly ClockReading[];
  /** Does a condition go a step, to a record that another one points to? */
  readonly steps: boolean;
}

/** All conditions of the definition: of lines, lists, groups and those with a name. */
export function conditionsOf(definition: Definition): Condition[] {
  const found: Condition[] = [...definition.groups, ...definition.conditions].map((one) => one.condition);
  for (const gate of Object.values(definition.gates))
    for (const line of gate.lines) if (line.when) found.push(line.when);
  return [...found, ...filtersOf(definition)];
}

const filters = new WeakMap<Definition['areas'], Condition[]>();

function filtersOf({ areas }: Definition): Condition[] {
  let found = filters.get(areas);
  if (!found) {
    found = areas
      .flatMap((area) => area.screens.flatMap(sectionsOf))
      .flatMap(({ parts }) =>
        parts.flatMap((part) => (part.kind === 'list' && part.filter ? [part.filter] : [])),
      );
    filters.set(areas, found);
  }
  return found;
}

export function dependenciesOf(definition: Definition): Dependencies {
  const user = new Set<Id>();
  const session = new Set<Id>();
  const clock = new Set<ClockReading>();
  let steps = false;
  const asksHome = Object.values(definition.gates).some((gate) =>
    gate.lines.some((line) => line.who.kind === 'unit'),
  );
  if (asksHome) user.add('home_unit');
  for (const operand of conditionsOf(definition).flatMap(allWithin).flatMap(operandsOf)) {
    if ('user' in operand) user.add(operand.user);
    if ('session' in operand) session.add(operand.session);
    if ('clock' in operand) clock.add(operand.clock);
    if ('record' in operand && operand.through !== undefined) steps = true;
  }
  return { user: [...user].sort(), session: [...session].sort(), clock: [...clock].sort(), steps };
}

/** Does the condition, or one that it names, ask for the time or for what a session holds? */
export const dependsOnTime = (definition: Definition, condition: Condition): boolean =>
  allNamed(definition, condition)
    .flatMap(operandsOf)
    .some((operand) => 'clock' in operand || 'session' in operand);

const asked = new WeakMap<Definition, ReadonlySet<Id>>();

/**
 * The fields that some condition asks of a record, with those that say its unit: only when one of these is another
 * can a screen be another before it is saved.
 */
export function fieldsAskedOf(definition: Definition): ReadonlySet<Id> {
  let found = asked.get(definition);
  if (!found) {
    const fields = new Set<Id>();
    for (const operand of conditionsOf(definition).flatMap(allWithin).flatMap(operandsOf))
      if ('record' in operand) fields.add(operand.through ?? operand.record);
    for (const { unitField } of definition.entities) if (unitField !== undefined) fields.add(unitField);
    asked.set(definition, (found = fields));
  }
  return found;
}

const keys = new WeakMap<Condition, string>();

/** The same for two conditions that are written the same. */
export function conditionKey(condition: Condition): string {
  let key = keys.get(condition);
  if (key === undefined) keys.set(condition, (key = JSON.stringify(condition)));
  return key;
}
