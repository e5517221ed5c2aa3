'use client';

import type { List } from '@/core/model';
import { useBench } from '../frame/bench';
import { Choice } from './choice';
import { useChange } from './use-change';

/** Whether a list on a record's screen shows only what belongs to that record. */
export function ListOf({ list }: { list: List }) {
  const { compiled, selected } = useBench();
  const change = useChange();
  const { binds } = selected.screen ?? {};
  const one = compiled.tree.entityOf(binds?.entity ?? '');
  const listed = compiled.tree.entityOf(list.entity);
  const pointing =
    binds?.record === 'existing'
      ? (listed?.fields.filter(({ type }) => type.kind === 'record' && type.entity === binds.entity) ?? [])
      : [];
  if (!one || !listed || pointing.length === 0) return null;
  return (
    <div className="mb-2">
      <Choice
        label="Records to list"
        value={list.of ?? ''}
        options={[
          ['', `All ${listed.plural}`],
          ...pointing.map(
            ({ id, name }) => [id, `Only those whose ${name} is the ${one.name} on the screen`] as const,
          ),
        ]}
        onChoose={(of) => change({ of: of || null })}
      />
      {list.of !== undefined && (
        <p className="text-quiet">
          This list does not give access to records. It shows the records that the viewer can see through
          other screens or the gate of {listed.plural}.
        </p>
      )}
    </div>
  );
}
