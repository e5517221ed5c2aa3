'use client';

import { useRef, useState } from 'react';
import type { Imported } from '@/core/making';
import { importRecords } from '@/contract/studio/data';
import type { RecordsFrom } from './records-from';
import { Told } from '../../../parts/fields';
import { useTell } from '../../../parts/toasts';
import { Window } from '../../../parts/window';
import { tooLarge } from '../../shared/file-size';
import { Progress } from '../../shared/progress';
import { sendProgressing } from '@/ui/client/progressing';
import { chooseAgain } from '../../../parts/choose-again';

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
      title="Bring in a CSV file"
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        clear();
      }}
      trigger={
        <button type="button" className="button">
          Bring in CSV …
        </button>
      }
    >
      <div className="grid gap-3">
        <p>
          Its first line names the fields. With a column <code className="font-mono">id</code>, rows whose
          record is there change it; all others are added.
        </p>
        <input
          type="file"
          aria-label="CSV file"
          accept=".csv,.tsv,.txt,text/csv"
          onClick={chooseAgain}
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            setFile(chosen);
            setFound(undefined);
            const large = chosen && tooLarge([chosen]);
            if (large !== undefined) setProblem(large);
            else if (chosen) void ask(chosen, true);
          }}
        />
        <Told text={problem} />
        {going && (
          <Progress
            says={found ? 'Taking it in' : 'Reading it'}
            {...going}
            onStop={() => stop.current?.abort()}
          />
        )}
        {found && (
          <>
            <p role="status">
              It would add {count(found.added)} and change {count(found.changed)}.
              {missing.length > 0 &&
                ` Left out, since no field is called so: ${missing.map(({ name }) => name).join(', ')}.`}
            </p>
            {found.wrongCount > 0 && (
              <div>
                <p className="font-medium">
                  {found.wrongCount === 1
                    ? 'One cell does not fit:'
                    : `${count(found.wrongCount)} cells do not fit:`}
                </p>
                <ul className="mt-1 max-h-48 overflow-auto">
                  {found.wrong.map(({ line, column, says }, n) => (
                    <li key={n}>
                      Line {line}, {column}: {says}
                    </li>
                  ))}
                </ul>
                <label className="mt-2 flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-4 accent-open"
                    checked={leaveOut}
                    onChange={(event) => setLeaveOut(event.target.checked)}
                  />
                  Leave these cells empty, and take in the rest
                </label>
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
                  Take it in
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
