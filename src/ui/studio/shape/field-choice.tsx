'use client';

import type { Id } from '@/core/model';
import { useBench } from '../gates/bench';
import { Labelled } from './labelled';
import { useChange } from './use-change';

/** Which field of the data a field or a column shows. */
export function FieldChoice({ field }: { field: Id }) {
  const { compiled, mayChange } = useBench();
  const change = useChange();
  const entity = compiled.tree.entityOf(field);
  return (
    <Labelled label="Shows">
      <select
        className="field-box"
        disabled={!mayChange}
        value={field}
        onChange={(event) => change({ field: event.target.value })}
      >
        {entity?.fields.map(({ id, name }) => (
          <option key={id} value={id}>
            {entity.name}: {name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
