'use client';

import type { DataChange } from '@/core/edit';
import type { EntityField, ValueType } from '@/core/model';
import { send } from '../../live/host';
import { useConfirm } from '../../parts/asking';
import { useBench } from '../gates/bench';

/** Tells before a field holds something else which of its values do not fit; asks only where there are such. */
export function useTurning(): (field: EntityField, type: ValueType) => Promise<boolean> {
  const { api, compiled } = useBench();
  const confirm = useConfirm();
  return async (field, type) => {
    const entity = compiled.tree.entityOf(field.id);
    if (!entity) return false;
    const told = await send<{ changes: readonly DataChange[] }>(
      'POST',
      `${api}/records/${entity.id}/turned?records=sample`,
      { field: field.id, type },
    );
    // The edit itself is made all the same where it cannot be told: the server keeps what does not fit.
    const [change] = told.ok ? told.value.changes : [];
    if (!change || change.examples.length === 0) return true;
    const text = (
      <>
        <p>Of the sample records: {change.said.join(' ')}</p>
        <ul className="my-2">
          {change.examples.map(({ record, value }) => (
            <li key={record}>
              {record}: “{value}”
            </li>
          ))}
        </ul>
        <p className="text-quiet">
          It can be undone, and then they have their values again. Live records are turned by the next
          release.
        </p>
      </>
    );
    return confirm({ title: `Some values of ${field.name} do not fit`, text, go: 'Turn the rest' });
  };
}
