import { allWithin, type Condition } from '../condition/condition';
import type { Scope } from '../condition/type';
import type { Edit } from '../edit/edits/edit';
import type { Line } from '../model/gate';
import type { Id } from '../model/id';
import type { Context } from './context';

/** A condition where it stands. */
export interface PlacedCondition {
  readonly place: Id;
  readonly name: string;
  readonly condition: Condition;
  readonly scope: Scope;
  /** The line whose *when* it is, and its place in the gate. */
  readonly line?: { readonly line: Line; readonly at: number };
  /** The edit that takes the condition alone away, where something is left that means the same without it. */
  readonly without?: Edit;
}

/** All conditions of a definition: of lines, lists, groups, and those with a name. */
export function* conditionsIn({ definition, tree, compiled }: Context): Generator<PlacedCondition> {
  for (const [id, { lines }] of Object.entries(definition.gates)) {
    const element = tree.get(id);
    if (!element) continue;
    for (const [at, line] of lines.entries()) {
      const { when, ...rest } = line;
      if (!when) continue;
      yield {
        place: id,
        name: `Line ${at + 1} of ${element.name}`,
        condition: when,
        scope: compiled.scope(element),
        line: { line, at },
        without: { do: 'changeLine', gate: id, from: line, to: rest },
      };
    }
  }
  for (const element of tree.elements) {
    if (element.kind !== 'list' || !element.node.filter) continue;
    const { filter } = element.node;
    yield {
      place: element.id,
      name: `The filter of ${element.name}`,
      condition: filter,
      scope: { definition, entity: tree.entityOf(element.node.entity) },
      without: { do: 'changeElement', id: element.id, from: { filter }, to: { filter: null } },
    };
  }
  for (const { id, name, condition } of definition.groups)
    yield { place: id, name: `The group ${name}`, condition, scope: { definition } };
  for (const { id, name, condition, entity } of definition.conditions)
    yield {
      place: id,
      name: `The condition ${name}`,
      condition,
      scope: { definition, entity: tree.entityOf(entity ?? '') },
    };
}

/** The comparisons and other questions of a condition, without what it names. */
export const questionsOf = (condition: Condition): Condition[] =>
  allWithin(condition).filter((one) => !isJoined(one) && !isNamed(one));

/** What can be true or false by itself in a condition: the parts that join others, the outermost first, then the questions. */
export const judgedParts = (condition: Condition): Condition[] => [
  ...allWithin(condition).filter((one) => isJoined(one) && !('not' in one)),
  ...questionsOf(condition),
];

const isJoined = (one: Condition): boolean => 'all' in one || 'any' in one || 'not' in one;
const isNamed = (one: Condition): boolean => 'meets' in one || 'inGroup' in one;
