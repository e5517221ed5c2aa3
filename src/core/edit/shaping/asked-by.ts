import { allWithin, type Condition } from '../../condition/condition';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { treeOf } from '../../model/tree';
import { fullName } from '../comparing/words';
import { asksOf } from './in-doubt';

/** Where conditions ask of something, such as a field: gates, filters of lists, groups and named conditions, by name. */
export function askedBy(definition: Definition, id: Id): readonly string[] {
  const asked = new Set([id]);
  const asks = (condition: Condition | undefined): boolean =>
    condition !== undefined && allWithin(condition).some((one) => asksOf(one, asked));
  const tree = treeOf(definition);
  const nameOf = (element: Id): string => {
    const found = tree.get(element);
    return found ? fullName(found) : element;
  };
  return [
    ...Object.entries(definition.gates).flatMap(([element, { lines }]) =>
      lines.some(({ when }) => asks(when)) ? [`Gate of ${nameOf(element)}`] : [],
    ),
    ...tree.elements.flatMap((one) =>
      one.kind === 'list' && asks(one.node.filter) ? [`Filter of ${fullName(one)}`] : [],
    ),
    ...definition.groups.flatMap(({ name, condition }) => (asks(condition) ? [`Group ${name}`] : [])),
    ...definition.conditions.flatMap(({ name, condition }) => (asks(condition) ? [`Condition ${name}`] : [])),
  ];
}
