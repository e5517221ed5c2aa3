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
        label="Of these"
        value={list.of ?? ''}
        options={[
          ['', `All ${listed.plural}`],
          ...pointing.map(({ id, name }) => [id, `Those whose ${name} is this ${one.name}`] as const),
        ]}
        onChoose={(of) => change({ of: of || null })}
      />
      {list.of !== undefined && (
        <p className="text-quiet">
          It opens nothing by itself: it shows those that one gets on other screens, or by the gate of{' '}
          {listed.plural}.
        </p>
      )}
    </div>
  );
}
