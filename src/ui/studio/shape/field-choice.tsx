'use client';

import type { Id } from '@/core/model';
import { useBench } from '../frame/bench';
import { Choice } from './choice';
import { useChange } from './use-change';

/** Which field of the data a field or a column shows. */
export function FieldChoice({ field }: { field: Id }) {
  const { compiled } = useBench();
  const change = useChange();
  const entity = compiled.tree.entityOf(field);
  const options = entity?.fields.map(({ id, name }) => [id, `${entity.name}: ${name}`] as const) ?? [];
  return (
    <Choice label="Field shown" value={field} options={options} onChoose={(to) => change({ field: to })} />
  );
}
