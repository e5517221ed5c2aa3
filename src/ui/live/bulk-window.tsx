'use client';

import dynamic from 'next/dynamic';
import { useRef, useState } from 'react';
import type { ShownButton } from '@/core/access';
import type { Value } from '@/core/model';
import { useChosen, type ChosenRow } from './chosen';
import { Window } from '../parts/window';
import { useHost } from './host';
import { Select } from '@/ui/parts/select';

/** Only an open window loads it. */
const ValueBox = dynamic(() => import('../parts/value-box').then((part) => part.ValueBox));

type Bulk = Extract<ShownButton['effect'], { do: 'bulk' }>;

/** So many records are changed by one request: all of them, or none. */
const AT_ONCE = 500;

/**
 * Changes one field of all selected rows. More than one request takes are changed in batches, one after the other, with
 * progress and a way to stop; what has not been changed stays selected.
 */
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
  const [value, setValue] = useState<Value | null>(null);
  const [problem, setProblem] = useState('');
  /** How many are changed by now, while it goes on. */
  const [progress, setProgress] = useState<number>();
  const stopped = useRef(false);
  const shown = effect.fields.find((one) => one.field === field);
  const change = async (): Promise<void> => {
    setProblem('');
    setProgress(0);
    stopped.current = false;
    let done = 0;
    while (done < chosen.length && !stopped.current) {
      const batch = chosen.slice(done, done + AT_ONCE);
      const answer = await host.bulk(effect.list, {
        records: batch,
        values: { [field]: value },
        ...(record !== undefined && { record }),
      });
      if (!answer.ok) {
        const said = [answer.detail, ...Object.values(answer.fields)].join(' ');
        setProblem(
          done === 0 ? said : `${done.toLocaleString('en')} records were changed before this. ${said}`,
        );
        break;
      }
      done += batch.length;
      setProgress(done);
    }
    setProgress(undefined);
    if (done === 0) return;
    choose(effect.list, new Map([...picked].slice(done)));
    if (done === chosen.length) setOpen(false);
    host.tell(`Records changed: ${done.toLocaleString('en')}.`);
    host.refresh();
  };
  return (
    <Window
      title={`Change selected records (${chosen.length})`}
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
        <p>First select rows in the list, using the checkboxes on the left.</p>
      ) : fields.length === 0 ? (
        <p>You cannot change any field on all {chosen.length} selected records. Select fewer records.</p>
      ) : (
        <div className="grid gap-3">
          <label>
            <span className="text-quiet">Field</span>
            <Select
              value={field}
              onChoose={(chosen) => {
                setField(chosen);
                setValue(null);
              }}
              options={fields.map((one) => ({ id: one.field, name: one.label }))}
            />
          </label>
          <label>
            <span className="text-quiet">New value</span>
            {shown && (
              <ValueBox
                type={shown.input.type}
                value={value}
                none=""
                manner={{ language: host.language, units: [] }}
                onChange={setValue}
              />
            )}
          </label>
          {problem && (
            <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
              {problem}
            </p>
          )}
          {progress !== undefined && chosen.length > AT_ONCE && (
            <div role="status" className="flex items-center gap-3">
              <progress aria-label="Changed so far" value={progress} max={chosen.length} className="grow" />
              <span className="tabular-nums">
                {progress.toLocaleString('en')} of {chosen.length.toLocaleString('en')}
              </span>
              <button type="button" className="button" onClick={() => (stopped.current = true)}>
                Stop
              </button>
            </div>
          )}
          <button
            type="button"
            className="button button-main justify-self-start"
            disabled={progress !== undefined}
            onClick={() => void change()}
          >
            Change {chosen.length.toLocaleString('en')}
          </button>
        </div>
      )}
    </Window>
  );
}
