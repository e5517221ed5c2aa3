import { type Access, accessOf } from '../access/deciding/access';
import { EDIT, NONE } from '../access/deciding/level';
import type { Unlocked } from '../access/deciding/viewer';
import type { KnownRecord } from '../access/sent/resolve';
import { type AppElement, isDataDoor } from '../model/tree';

/** Can it be unlocked by anybody: is it shown as closed, in a record that there is? */
export function isLockable({ compiled }: Access, element: AppElement): boolean {
  const show = compiled.closed(element.id)?.show;
  const inRecord = element.list !== undefined || element.screen?.binds?.record === 'existing';
  return (
    (show === 'locked' || show === 'explained') &&
    element.kind !== 'list' &&
    inRecord &&
    compiled.tree.recordOf(element) !== undefined
  );
}

/** Do they hold what it takes to unlock for others? */
export function mayUnlock({ held, compiled }: Access): boolean {
  const { unlock } = compiled.definition;
  return (
    unlock !== undefined &&
    held.isSpokenOf({ kind: 'privilege', privilege: unlock.privilege })('be true') === true
  );
}

/**
 * What the viewer gets once somebody else (`theirs`) has unlocked the element on the record for them; undefined where
 * that must be refused (access.md 3).
 */
export function unlocking(
  own: Access,
  theirs: Access,
  element: AppElement,
  record: KnownRecord,
): Access | undefined {
  const { compiled, held } = own;
  if (!isLockable(own, element) || own.level(element, record) > NONE) return undefined;
  const rows = own.element(record.entity.id);
  if ([own, theirs].some((access) => access.level(rows, record) === NONE)) return undefined;
  const level = theirs.level(element, record);
  if (!mayUnlock(theirs) || level === NONE) return undefined;
  const door = compiled.handles.doorOf(element);
  const doorElement = door && compiled.tree.get(door.id);
  const opens = [element, ...(doorElement && isDataDoor(doorElement) ? [doorElement] : [])];
  const what: Unlocked['what'] = level === EDIT ? 'edit' : 'see';
  const unlocked = opens.map(({ id }): Unlocked => ({ element: id, record: record.id, what }));
  const opened = accessOf(compiled, held.viewer, { ...held.circumstances, unlocked });
  return opened.level(element, record) === NONE ? undefined : opened;
}
