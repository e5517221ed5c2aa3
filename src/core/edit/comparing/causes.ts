import { compile, type Compiled } from '../../access/deciding/compile';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { isDataDoor, type AppElement } from '../../model/tree';

/**
 * For elements whose access differs between two definitions: which of those that were changed it follows from, as
 * the nearest on the way by which access is decided: what they stand in, their door, what holds a door open, what
 * saves. Undefined where it comes from none: then from roles, groups or settings.
 */
export function causesOf(
  before: Definition,
  after: Definition,
  changed: ReadonlySet<Id>,
): (element: Id) => Id | undefined {
  const sides = [compile(after), compile(before)];
  const known = new Map<Id, readonly Id[]>();
  const near = (id: Id): readonly Id[] => {
    let found = known.get(id);
    if (!found) {
      const deciding = sides.flatMap((one) => decidingOn(one, one.tree.get(id)));
      known.set(id, (found = [...new Set(deciding.map((each) => each.id))]));
    }
    return found;
  };
  return (element) => {
    const seen = new Set([element]);
    for (let ring: Id[] = [element]; ring.length > 0;) {
      const found = ring.find((id) => changed.has(id));
      if (found !== undefined) return found;
      ring = ring.flatMap(near).filter((id) => !seen.has(id) && seen.add(id));
    }
    return undefined;
  };
}

/** What has a say in who gets the element. */
function decidingOn({ tree, handles }: Compiled, element: AppElement | undefined): AppElement[] {
  if (!element) return [];
  const ids: Id[] = [];
  const entity = tree.recordOf(element) ?? tree.entityOf(element.id);
  const door = handles.doorOf(element);
  if (door) ids.push(door.id);
  if (isDataDoor(element)) ids.push(...handles.handlesOf(element));
  if (element.kind === 'data-field' && entity)
    ids.push(tree.action(entity, 'update').id, tree.action(entity, 'create').id);
  if (element.kind !== 'rows' && entity) ids.push(entity.id);
  if (element.kind === 'field' && element.screen)
    ids.push(...handles.savesOn(element.screen).map(({ id }) => id));
  if (element.kind === 'button' && 'list' in element.node.effect) ids.push(element.node.effect.list);
  const { container } = element;
  return [...(container ? [container] : []), ...ids.flatMap((id) => tree.get(id) ?? [])];
}
