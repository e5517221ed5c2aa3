'use client';

import { useState } from 'react';
import { print } from '@/core';
import type { List } from '@/core/model';
import { useBench } from '../frame/bench';
import { ConditionWindow } from '../shared/condition/condition-on-demand';
import { useChange } from './use-change';

/** Which records a list shows at all: all of them, or those for which a condition holds. */
export function ListFilter({ list }: { list: List }) {
  const { definition, compiled, mayChange, app } = useBench();
  const change = useChange();
  const [open, setOpen] = useState(false);
  const entity = compiled.tree.entityOf(list.entity);
  const scope = { definition, entity };
  return (
    <div className="mb-2">
      <span className="block text-quiet">Shows</span>
      <p className={list.filter ? 'font-mono text-[13px] break-words' : ''}>
        {list.filter ? print(scope, list.filter) : `All ${entity?.plural ?? 'records'}`}
      </p>
      {mayChange && (
        <span className="flex gap-3">
          <button type="button" className="link" onClick={() => setOpen(true)}>
            {list.filter ? 'Edit filter' : 'Add filter…'}
          </button>
          {list.filter && (
            <button type="button" className="link" onClick={() => change({ filter: null })}>
              Remove filter
            </button>
          )}
        </span>
      )}
      {open && (
        <ConditionWindow
          title={`${list.name} shows records where…`}
          app={app}
          scope={scope}
          condition={list.filter}
          onUse={(filter) => change({ filter })}
          onClose={() => setOpen(false)}
        />
      )}
    </div>
  );
}
