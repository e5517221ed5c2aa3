'use client';

import type { List } from '@/core/model';
import { useBench } from '../gates/bench';
import { Labelled } from './labelled';
import { useChange } from './use-change';

/** Whether a list on a record's screen shows only what belongs to that record. */
export function ListOf({ list }: { list: List }) {
  const { compiled, selected, mayChange } = useBench();
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
      <Labelled label="Of these">
        <select
          className="field-box"
          disabled={!mayChange}
          value={list.of ?? ''}
          onChange={(event) => change({ of: event.target.value || null })}
        >
          <option value="">{`All ${listed.plural}`}</option>
          {pointing.map(({ id, name }) => (
            <option key={id} value={id}>
              {`Those whose ${name} is this ${one.name}`}
            </option>
          ))}
        </select>
      </Labelled>
      {list.of !== undefined && (
        <p className="text-quiet">
          It opens nothing by itself: it shows those that one gets on other screens, or by the gate of{' '}
          {listed.plural}.
        </p>
      )}
    </div>
  );
}
