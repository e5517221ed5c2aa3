'use client';

import { Plus } from 'lucide-react';
import { useState } from 'react';
import type { Value } from '@/core/model';
import { send } from '@/ui/client/send';
import { addRow } from '@/contract/studio/data';
import type { RecordsFrom } from './records-from';
import { FieldMessage } from '../../../parts/fields';
import { Window } from '../../../parts/window';
import type { DataPage } from '@/core/making';
import { ValueEditor } from './value-editor';

interface Props {
  readonly page: DataPage;
  readonly from: RecordsFrom;
  readonly onAdded: () => Promise<void>;
}

/** Adds a record by a form with all of its fields. */
export function NewRow({ page: { entity, manner }, from, onAdded }: Props) {
  const start = Object.fromEntries(entity.fields.map(({ id, initial }) => [id, initial ?? null]));
  const [open, setOpen] = useState(false);
  const [values, setValues] = useState<Readonly<Record<string, Value | null>>>(start);
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const [problem, setProblem] = useState('');
  const add = async (): Promise<void> => {
    const answer = await send(addRow, {
      ...{ app: from.app, entity: entity.id, query: { records: from.records } },
      body: { values },
    });
    setProblems(answer.ok ? {} : answer.fields);
    setProblem(answer.ok || Object.keys(answer.fields).length > 0 ? '' : answer.detail);
    if (!answer.ok) return;
    setOpen(false);
    setValues(start);
    await onAdded();
  };
  return (
    <Window
      title={`New ${entity.name}`}
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setValues(start);
        setProblems({});
      }}
      trigger={
        <button type="button" className="button">
          <Plus size={14} aria-hidden /> Add
        </button>
      }
    >
      <form
        className="grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        {entity.fields.map((field) => (
          <div key={field.id}>
            <span className="text-quiet">
              {field.name}
              {field.required && ' (required)'}
            </span>
            <ValueEditor
              field={field}
              value={values[field.id] ?? null}
              label={undefined}
              manner={manner}
              from={from}
              onWrite={(value) => setValues((now) => ({ ...now, [field.id]: value }))}
            />
            {problems[field.id] && (
              <p role="alert" className="font-medium">
                {problems[field.id]}
              </p>
            )}
          </div>
        ))}
        <FieldMessage text={problem} />
        <span>
          <button type="submit" className="button button-main">
            Add record
          </button>
        </span>
      </form>
    </Window>
  );
}
