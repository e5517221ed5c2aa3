'use client';

import type { EntityField, ValueType } from '@/core/model';
import { send } from '@/ui/client/send';
import { turnedRecords } from '@/contract/studio/data';
import { useConfirm } from '../../parts/asking';
import { useBench } from '../frame/bench';

/** Tells before a field holds something else which of its values do not fit; asks only where there are such. */
export function useTypeConversion(): (field: EntityField, type: ValueType) => Promise<boolean> {
  const { app, compiled } = useBench();
  const confirm = useConfirm();
  return async (field, type) => {
    const entity = compiled.tree.entityOf(field.id);
    if (!entity) return false;
    const told = await send(turnedRecords, {
      ...{ app, entity: entity.id, query: { records: 'sample' } },
      body: { field: field.id, type },
    });
    // The edit itself is made all the same where it cannot be told: the server keeps what does not fit.
    const [change] = told.ok ? told.value.changes : [];
    if (!change || change.examples.length === 0) return true;
    const text = (
      <>
        <p>Sample records: {change.said.join(' ')}</p>
        <ul className="my-2">
          {change.examples.map(({ record, value }) => (
            <li key={record}>
              {record}: “{value}”
            </li>
          ))}
        </ul>
        <p className="text-quiet">
          If you undo this, the previous values are restored. Live records are converted by the next release.
        </p>
      </>
    );
    return confirm({
      title: `Some values of ${field.name} cannot be converted`,
      text,
      go: 'Convert the rest',
    });
  };
}
