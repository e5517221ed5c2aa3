'use client';

import { useState } from 'react';
import { type EntityField, type DisplayFormat, readValue, showValue, type Value } from '@/core/model';
import type { RecordsFrom } from './records-from';
import { ValueEditor } from './value-editor';
import type { DataRow } from '@/core/making';

interface Props {
  readonly field: EntityField;
  readonly row: DataRow;
  readonly manner: DisplayFormat;
  /** Where records that it can point to are searched. */
  readonly from: RecordsFrom;
  readonly mayChange: boolean;
  /** Gives back what is wrong with it; undefined once it is stored. */
  readonly onWrite: (value: Value | null) => Promise<string | undefined>;
}

/** A value in the table; chosen, it is written where it stands. */
export function Cell({ field, row, manner, from, mayChange, onWrite }: Props) {
  const [editing, setEditing] = useState(false);
  const [problem, setProblem] = useState<string>();
  const value = row.values[field.id] ?? null;
  const fits = value === null || !('problem' in readValue({ ...field, required: false }, value));
  const shown = field.type.kind === 'record' ? row.labels[field.id] : showValue(field.type, value, manner);
  const text = fits ? (shown ?? String(value ?? '')) : String(value);
  const about = fits ? undefined : 'This value does not match the field’s type.';
  const words = (
    <span className={fits ? '' : 'border-b border-dashed border-ink'} title={about} dir="auto">
      {text || <span className="text-edge">–</span>}
    </span>
  );
  if (!mayChange) return words;
  if (!editing)
    return (
      <button
        type="button"
        className="block min-h-[24px] w-full max-w-64 truncate text-inherit"
        style={{ textAlign: 'inherit' }}
        aria-label={`${field.name}: ${text || 'empty'}`}
        onClick={() => setEditing(true)}
      >
        {words}
      </button>
    );
  const close = (): void => {
    setEditing(false);
    setProblem(undefined);
  };
  return (
    <div
      className="min-w-32"
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
      }}
    >
      <ValueEditor
        field={field}
        value={value}
        label={row.labels[field.id]}
        manner={manner}
        from={from}
        onLeave={close}
        onWrite={async (next) => {
          if (next === value) return close();
          const wrong = await onWrite(next);
          if (wrong === undefined) close();
          else setProblem(wrong);
        }}
      />
      {problem && (
        <p role="alert" className="mt-0.5 max-w-64 text-[12px] font-medium whitespace-normal">
          {problem}
        </p>
      )}
    </div>
  );
}
