import { all, type Formula } from '../../condition/formula';
import type { List } from '../../model/definition';
import type { Id } from '../../model/id';
import type { Access } from '../deciding/access';

/**
 * Which records a list shows: those that its fixed filter lets through for this viewer and, where it is limited to the
 * screen's record, only those that point to that one; none without one. Their doors are asked beside it.
 */
export function listed(access: Access, list: List, screenRecord: Id | undefined): Formula {
  const carried = access.doors.carried(list);
  if (list.of === undefined) return carried;
  if (screenRecord === undefined) return false;
  return all(carried, {
    atom: {
      is: '=',
      left: { field: list.of, as: 'text' },
      right: { constant: screenRecord, as: 'text' },
    },
    must: 'be true',
  });
}
