'use client';

import { useState } from 'react';
import { print } from '@/core';
import type { Condition, Scope } from '@/core/condition';
import { ConditionWindow } from '../shared/condition/condition-on-demand';
import { usePeopleWork } from './use-people-work';
import { KeptText } from '@/ui/parts/kept-text';

export function ConditionRow({
  name,
  scope,
  condition,
  onName,
  onCondition,
  onRemove,
  what,
  mayChange,
}: {
  name: string;
  scope: Scope;
  condition: Condition;
  onName: (name: string) => void;
  onCondition: (condition: Condition) => void;
  onRemove: (() => void) | undefined;
  what: string;
  mayChange: boolean;
}) {
  const { app } = usePeopleWork();
  const [open, setOpen] = useState(false);
  return (
    <>
      <div className="flex items-center gap-3">
        <KeptText
          label={`Name of the ${what}`}
          className="max-w-72 font-semibold"
          value={name}
          disabled={!mayChange}
          onKeep={onName}
        />
        <code className="min-w-0 grow font-mono text-[13px] break-words">{print(scope, condition)}</code>
        {mayChange && (
          <>
            <button
              type="button"
              className="link"
              aria-label={`Edit the condition of ${name}`}
              onClick={() => setOpen(true)}
            >
              Edit condition
            </button>
            {onRemove && (
              <button type="button" className="link" aria-label={`Delete ${name}`} onClick={onRemove}>
                Delete
              </button>
            )}
          </>
        )}
      </div>
      {open && (
        <ConditionWindow
          title={`Condition of ${name}`}
          app={app}
          scope={scope}
          condition={condition}
          onUse={onCondition}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}
