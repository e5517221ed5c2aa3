'use client';

import { X } from 'lucide-react';
import type { Screen, SessionSetting } from '@/core/model';
import { useBench } from '../frame/bench';
import { ValueBox } from '@/ui/parts/value-box';
import { useChange } from './use-change';
import { Select } from '@/ui/parts/select';

/** What opening a screen sets for the session; nothing is shown where the application has no session values. */
export function SessionSets({ screen }: { screen: Screen }) {
  const { definition, mayChange } = useBench();
  const change = useChange();
  const sets = screen.sets ?? [];
  const { sessionValues } = definition;
  if (sessionValues.length === 0) return null;
  const put = (next: readonly SessionSetting[]): void => change({ sets: next.length > 0 ? next : null });
  const others = sessionValues.filter(({ id }) => !sets.some(({ value }) => value === id));
  return (
    <fieldset className="mb-2">
      <legend className="text-quiet">Session values set when the screen opens</legend>
      {sets.map((one, n) => {
        const value = sessionValues.find(({ id }) => id === one.value);
        if (!value) return null;
        return (
          <div key={one.value} className="mb-1 flex items-center gap-2">
            <span className="w-28 shrink-0 truncate" title={value.name}>
              {value.name}
            </span>
            <ValueBox
              label={`Sets ${value.name} to`}
              manner={definition}
              none="not set"
              type={value.type}
              value={one.to}
              onChange={(to) => put(sets.with(n, { ...one, to }))}
            />
            {mayChange && (
              <button
                type="button"
                aria-label={`Stop setting ${value.name}`}
                className="grid size-[26px] shrink-0 place-items-center hover:bg-sheet"
                onClick={() => put(sets.toSpliced(n, 1))}
              >
                <X size={14} aria-hidden />
              </button>
            )}
          </div>
        );
      })}
      {mayChange && others.length > 0 && (
        <Select
          aria-label="Set another session value"
          value=""
          onChoose={(chosen) => put([...sets, { value: chosen, to: null }])}
          none={sets.length === 0 ? 'Nothing' : 'Set another…'}
          options={others}
        />
      )}
    </fieldset>
  );
}
