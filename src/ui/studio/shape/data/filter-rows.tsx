'use client';

import { ListFilter as FilterIcon } from 'lucide-react';
import { useState } from 'react';
import { print } from '@/core';
import type { Condition } from '@/core/condition';
import type { Definition, Entity } from '@/core/model';
import { ConditionWindow } from '../../shared/condition/condition-on-demand';

interface Props {
  readonly app: string;
  readonly scope: { readonly definition: Definition; readonly entity: Entity };
  readonly filter: Condition | undefined;
  readonly onFilter: (filter: Condition | undefined) => void;
}

/** Shows only records that meet a condition, picked or written as any other. */
export function FilterRows({ app, scope, filter, onFilter }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="button" onClick={() => setOpen(true)}>
        <FilterIcon size={14} aria-hidden /> Filter…
      </button>
      {filter && (
        <span className="order-last flex min-w-0 basis-full items-baseline gap-3">
          <span className="font-mono text-[13px] break-words">{print(scope, filter)}</span>
          <button type="button" className="link shrink-0" onClick={() => onFilter(undefined)}>
            Clear filter
          </button>
        </span>
      )}
      {open && (
        <ConditionWindow
          title={`Show ${scope.entity.plural} where…`}
          app={app}
          scope={scope}
          condition={filter}
          onUse={onFilter}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}
