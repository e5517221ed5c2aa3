'use client';

import { useState } from 'react';
import type { ShownButton } from '@/core/access';
import type { Value } from '@/core/model';
import { useChosen, type ChosenRow } from './chosen';
import { Window } from '../parts/window';
import { useHost } from './host';

type Bulk = Extract<ShownButton['effect'], { do: 'bulk' }>;

/** Changes one field of all chosen rows: all of them, or none. */
export function BulkWindow({
  button,
  effect,
  record,
}: {
  button: ShownButton;
  effect: Bulk;
  record: string | undefined;
}) {
  const host = useHost();
  const { rows, choose } = useChosen();
  const picked = rows.get(effect.list) ?? new Map<string, ChosenRow>();
  const chosen = [...picked].map(([id, { version }]) => ({ id, version }));
  // Only what may be changed on every one of them: all are changed, or none.
  const fields = effect.fields.filter((one) =>
    [...picked.values()].every(({ changes }) => changes.includes(one.field)),
  );
  const [open, setOpen] = useState(false);
  const [wanted, setField] = useState('');
  const field = fields.find((one) => one.field === wanted)?.field ?? fields[0]?.field ?? '';
  const [value, setValue] = useState<Value>('');
  const [problem, setProblem] = useState('');
  const shown = effect.fields.find((one) => one.field === field);
  const change = async (): Promise<void> => {
    const plain = shown?.input.type.kind === 'boolean' ? value === true : value === '' ? null : value;
    const answer = await host.bulk(effect.list, {
      records: chosen,
      values: { [field]: plain },
      ...(record !== undefined && { record }),
    });
    if (!answer.ok) return setProblem([answer.detail, ...Object.values(answer.fields)].join(' '));
    setOpen(false);
    choose(effect.list, new Map());
    host.tell(`${answer.value.changed} changed.`);
    host.refresh();
  };
  return (
    <Window
      title={`Change ${chosen.length} at once`}
      open={open}
      onOpenChange={(next) => {
        setProblem('');
        setOpen(next && button.usable);
      }}
      trigger={
        <button type="button" data-element={button.id} className="button" aria-disabled={!button.usable}>
          {button.name}
          {chosen.length > 0 && ` (${chosen.length})`}
        </button>
      }
    >
      {chosen.length === 0 ? (
        <p>Choose rows in the list first, by the boxes at their left.</p>
      ) : fields.length === 0 ? (
        <p>There is nothing that you may change on all of the {chosen.length} chosen. Choose fewer.</p>
      ) : (
        <div className="grid gap-3">
          <label>
            <span className="text-quiet">What to change</span>
            <select
              className="field-box"
              value={field}
              onChange={(event) => {
                setField(event.target.value);
                setValue('');
              }}
            >
              {fields.map((one) => (
                <option key={one.field} value={one.field}>
                  {one.label}
                </option>
              ))}
            </select>
          </label>
          <label>
            <span className="text-quiet">To</span>
            <BulkValue type={shown?.input.type} value={value} onChange={setValue} />
          </label>
          {problem && (
            <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
              {problem}
            </p>
          )}
          <button
            type="button"
            className="button button-main justify-self-start"
            onClick={() => void change()}
          >
            Change {chosen.length}
          </button>
        </div>
      )}
    </Window>
  );
}

function BulkValue({
  type,
  value,
  onChange,
}: {
  type: Bulk['fields'][number]['input']['type'] | undefined;
  value: Value;
  onChange: (value: Value) => void;
}) {
  if (type?.kind === 'choice')
    return (
      <select className="field-box" value={String(value)} onChange={(event) => onChange(event.target.value)}>
        <option value=""></option>
        {type.options.map((option) => (
          <option key={option.id} value={option.id}>
            {option.name}
          </option>
        ))}
      </select>
    );
  if (type?.kind === 'boolean')
    return (
      <span className="block py-1">
        <input
          type="checkbox"
          className="size-4 accent-open"
          checked={value === true}
          onChange={(event) => onChange(event.target.checked)}
        />
      </span>
    );
  return (
    <input
      type={type?.kind === 'date' ? 'date' : 'text'}
      className="field-box"
      value={String(value)}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
