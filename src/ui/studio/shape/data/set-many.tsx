'use client';

import { useState } from 'react';
import type { Value } from '@/core/model';
import type { RecordsFrom } from './records-from';
import { FieldMessage } from '../../../parts/fields';
import { Window } from '../../../parts/window';
import type { DataPage } from '@/core/making';
import { ValueEditor } from './value-editor';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly page: DataPage;
  readonly from: RecordsFrom;
  /** Gives back what is wrong; undefined once it is stored. */
  readonly onSet: (values: Readonly<Record<string, Value | null>>) => Promise<string | undefined>;
}

/** Gives all chosen records the same value in one field. */
export function SetMany({ page: { entity, manner }, from, onSet }: Props) {
  const [open, setOpen] = useState(false);
  const [fieldId, setFieldId] = useState(entity.fields[0]?.id ?? '');
  const [value, setValue] = useState<Value | null>(null);
  const [problem, setProblem] = useState('');
  const field = entity.fields.find(({ id }) => id === fieldId);
  return (
    <Window
      title="Set a field in all selected records"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="button">
          Set a field…
        </button>
      }
    >
      <form
        className="grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void onSet({ [fieldId]: value }).then((wrong) => {
            setProblem(wrong ?? '');
            if (wrong === undefined) setOpen(false);
          });
        }}
      >
        <label>
          <span className="text-quiet">Field</span>
          <Select
            aria-label="Field"
            value={fieldId}
            onChoose={(chosen) => {
              setFieldId(chosen);
              setValue(null);
            }}
            options={entity.fields}
          />
        </label>
        {field && (
          <div>
            <span className="text-quiet">New value</span>
            <ValueEditor
              key={fieldId}
              field={field}
              value={value}
              label={undefined}
              manner={manner}
              from={from}
              onWrite={setValue}
            />
          </div>
        )}
        <FieldMessage text={problem} />
        <span>
          <button type="submit" className="button button-main">
            Set field
          </button>
        </span>
      </form>
    </Window>
  );
}
