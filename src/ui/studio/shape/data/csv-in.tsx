'use client';

import { useRef, useState } from 'react';
import type { Imported } from '@/core/making';
import { importRecords } from '@/contract/studio/data';
import type { RecordsFrom } from './records-from';
import { FieldMessage } from '../../../parts/fields';
import { useTell } from '../../../parts/toasts';
import { Window } from '../../../parts/window';
import { tooLarge } from '../../shared/file-size';
import { Progress } from '../../shared/progress';
import { sendProgressing } from '@/ui/client/progressing';
import { FileField } from '../../../parts/file-field';
import { Checkbox } from '@/ui/parts/checkbox';

interface Props {
  readonly from: RecordsFrom;
  readonly entity: string;
  readonly onDone: () => Promise<void>;
}

/** Takes a CSV file in: says first what would come of it, line by line where something does not fit. */
export function CsvIn({ from: { app, records }, entity, onDone }: Props) {
  const tell = useTell();
  const [open, setOpen] = useState(false);
  const [file, setFile] = useState<File>();
  const [found, setFound] = useState<Imported>();
  const [leaveOut, setLeaveOut] = useState(false);
  const [problem, setProblem] = useState('');
  const [going, setGoing] = useState<{ readonly done?: number; readonly of?: number }>();
  const stop = useRef<AbortController>(undefined);
  const clear = (): void => {
    stop.current?.abort();
    setFile(undefined);
    setFound(undefined);
    setLeaveOut(false);
    setProblem('');
    setGoing(undefined);
  };
  const ask = async (of: File, dry: boolean): Promise<void> => {
    const form = new FormData();
    form.append('files', of);
    if (dry) form.append('dry', '1');
    if (leaveOut) form.append('leave-out', '1');
    stop.current = new AbortController();
    setGoing({});
    setProblem('');
    const answer = await sendProgressing(
      importRecords,
      { app, entity, query: { records }, body: form },
      (done, all) => setGoing({ done, of: all }),
      stop.current.signal,
    );
    setGoing(undefined);
    if (!answer.ok) return setProblem(answer.detail);
    if (dry) return setFound(answer.value);
    const { added, changed } = answer.value;
    tell(`${count(added)} added, ${count(changed)} changed.`);
    setOpen(false);
    clear();
    await onDone();
  };
  const missing = found?.columns.filter(({ field }) => field === null) ?? [];
  return (
    <Window
      title="Import a CSV file"
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        clear();
      }}
      trigger={
        <button type="button" className="button">
          Import CSV…
        </button>
      }
    >
      <div className="grid gap-3">
        <p>
          The first line must contain the field names. If there is a column{' '}
          <code className="font-mono">id</code>, rows with the id of an existing record update that record;
          all other rows are added.
        </p>
        <FileField
          label="CSV file"
          accept=".csv,.tsv,.txt,text/csv"
          onFiles={([chosen]) => {
            setFile(chosen);
            setFound(undefined);
            const large = chosen && tooLarge([chosen]);
            if (large !== undefined) setProblem(large);
            else if (chosen) void ask(chosen, true);
          }}
        />
        <FieldMessage text={problem} />
        {going && (
          <Progress
            says={found ? 'Importing…' : 'Reading…'}
            {...going}
            onStop={() => stop.current?.abort()}
          />
        )}
        {found && (
          <>
            <p role="status">
              This will add {count(found.added)} and change {count(found.changed)} records.
              {missing.length > 0 &&
                ` Columns ignored because no field has this name: ${missing.map(({ name }) => name).join(', ')}.`}
            </p>
            {found.wrongCount > 0 && (
              <div>
                <p className="font-medium">
                  {found.wrongCount === 1
                    ? 'One cell does not match its field’s type:'
                    : `${count(found.wrongCount)} cells do not match their field’s type:`}
                </p>
                <ul className="mt-1 max-h-48 overflow-auto">
                  {found.wrong.map(({ line, column, says }, n) => (
                    <li key={n}>
                      Line {line}, {column}: {says}
                    </li>
                  ))}
                </ul>
                <Checkbox className="mt-2" checked={leaveOut} onTurn={setLeaveOut}>
                  Leave these cells empty and import the rest
                </Checkbox>
              </div>
            )}
            {file && !going && (
              <span>
                <button
                  type="button"
                  className="button button-main"
                  disabled={found.wrongCount > 0 && !leaveOut}
                  onClick={() => void ask(file, false)}
                >
                  Import
                </button>
              </span>
            )}
          </>
        )}
      </div>
    </Window>
  );
}

const count = (n: number): string => n.toLocaleString('en');
