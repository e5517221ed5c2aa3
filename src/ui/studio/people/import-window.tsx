'use client';

import { useRef, useState } from 'react';
import { send } from '@/ui/client/send';
import { importPeople, type PeopleImported } from '@/contract/studio/people';
import { Window } from '../../parts/window';
import { usePeopleWork } from './use-people-work';
import { FileField } from '../../parts/file-field';

const WORDS = { new: 'new', changes: 'changes', same: 'no change', wrong: 'wrong' } as const;

/** Reads people from a file: first what would happen, line by line; then all of it, or nothing. */
export function ImportWindow({ onDone }: { onDone: () => Promise<void> }) {
  const { app, tell } = usePeopleWork();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [told, setTold] = useState<PeopleImported>();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const cancelling = useRef<AbortController>(undefined);
  const run = async (file: string, dry: boolean): Promise<void> => {
    setBusy(true);
    setProblem('');
    const answer = await send(
      importPeople,
      { app, query: { dry: dry ? 'yes' : 'no' }, body: file },
      { signal: (cancelling.current = new AbortController()).signal },
    );
    setBusy(false);
    if (cancelling.current?.signal.aborted) return setProblem('Import cancelled. Nothing was changed.');
    if (!answer.ok) {
      setTold(undefined);
      return setProblem(answer.detail);
    }
    setTold(answer.value);
    if (dry) return;
    const { new: fresh } = answer.value.counts;
    tell(
      fresh > 0
        ? 'Import finished. Each new person has been sent a link to choose a password. You can find these messages in the outbox, under Application settings.'
        : 'Import finished.',
    );
    setOpen(false);
    await onDone();
  };
  const { wrong = 0, new: added = 0, changes = 0, same = 0 } = told?.counts ?? {};
  const doing = added + changes;
  const all = doing + same + wrong;
  return (
    <Window
      title="Import people from CSV"
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setTold(undefined);
        setProblem('');
      }}
      trigger={
        <button type="button" className="button">
          Import CSV…
        </button>
      }
    >
      <p className="mb-2">
        The file can have these columns: email, name, active (yes or no), home unit, roles, and the name of
        any attribute. Separate several roles with semicolons. Write ROLE@UNIT to assign a role in one unit
        only. People are matched by email address; any address that is not found is added as a new person.
        Columns that are missing from the file are left unchanged.
      </p>
      <FileField
        label="CSV file"
        accept=".csv,text/csv"
        disabled={busy}
        onFiles={([file]) =>
          void file?.text().then((read) => {
            setText(read);
            return run(read, true);
          })
        }
      />
      {busy && (
        <p role="status" className="mt-2 flex items-center gap-3">
          Reading the file (about 1,000 lines a second)…
          <button type="button" className="button" onClick={() => cancelling.current?.abort()}>
            Cancel
          </button>
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-2 border-l-4 border-ink bg-sheet px-3 py-2">
          {problem}
        </p>
      )}
      {told && (
        <>
          <p className="mt-3 font-medium" role="status">
            {wrong > 0
              ? `${wrong === 1 ? 'One line has an error' : `${wrong} lines have errors`}. Correct the file and import it again.`
              : `${doing} of ${all} lines contain changes.`}
          </p>
          <ul className="mt-1 max-h-72 overflow-auto border border-rule">
            {told.lines.map((one) => (
              <li
                key={one.line}
                className={`px-2 py-1 ${one.does === 'wrong' ? 'bg-sheet font-medium' : ''}`}
              >
                <span className="text-quiet">Line {one.line}</span> {one.email || '(no email address)'}:{' '}
                {WORDS[one.does]}
                {one.says.length > 0 && `, ${one.says.join('; ')}`}
              </li>
            ))}
            {all > told.lines.length && (
              <li className="px-2 py-1 text-quiet">and {all - told.lines.length} more lines</li>
            )}
          </ul>
          <button
            type="button"
            className="button button-main mt-3 mr-2"
            disabled={busy || wrong > 0 || doing === 0}
            onClick={() => void run(text, false)}
          >
            Apply changes ({doing})
          </button>
        </>
      )}
    </Window>
  );
}
