'use client';

import { useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import type { CellKind, SheetChoice } from '@/core/making';
import { send } from '@/ui/client/send';
import { lookAtSheets, makeFromSheets } from '@/contract/studio/making';
import type { LookedSheet } from '@/contract/studio/making';
import { FieldMessage } from '../../parts/fields';
import { CurrencyChoice } from './currency-choice';
import { keyOf, kindOf } from './kinds';
import { CalledFields, useCalled, type Called } from './called';
import { mannersHere } from './application-settings';
import { Progress } from '../shared/progress';
import { sendProgressing } from '@/ui/client/progressing';
import { PickFiles } from './pick-files';
import { PickTables } from './pick-tables';
import type { Source } from './source';
import { SheetTable, type ChosenSheets } from './sheet-table';
import { Form } from '../../parts/form';

/** A name for an application of these things: "Plots and inspections". */
function nameFrom(things: readonly string[]): string {
  const words = new Intl.ListFormat('en').format(things.slice(0, 3)).toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** An application from rows, of CSV files or tables: what they hold is shown, and corrected, before anything is made. */
export function FromSheets({ of }: { of: 'files' | 'tables' }) {
  const called = useCalled();
  const choosing = useForm<ChosenSheets>({ defaultValues: { sheets: [] } });
  const [source, setSource] = useState<Source>();
  const [looked, setLooked] = useState<readonly LookedSheet[]>();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState<{ readonly says: string; readonly done?: number; readonly of?: number }>();
  const [currency, setCurrency] = useState('EUR');
  const going = useRef<AbortController>(undefined);

  const look = async (from: Source, kinds?: readonly (readonly CellKind[])[]) => {
    going.current?.abort();
    const { signal } = (going.current = new AbortController());
    const form = new FormData();
    from(form);
    if (kinds) form.append('kinds', JSON.stringify(kinds));
    const answer = await send(lookAtSheets, { body: form }, { signal });
    if (signal.aborted) return undefined;
    if (!answer.ok) setProblem(answer.detail);
    return answer.ok ? answer.value : undefined;
  };

  const choose = async (from: Source): Promise<void> => {
    setSource(() => from);
    setProblem('');
    setLooked(undefined);
    setBusy({ says: 'Checking the columns…' });
    const found = await look(from);
    setBusy(undefined);
    if (!found) return;
    const { sheets } = found;
    if (found.currency) setCurrency(found.currency);
    setLooked(sheets);
    choosing.reset({
      sheets: sheets.map(({ name, plural, columns }) => ({
        name,
        plural,
        columns: columns.map((one) => ({ name: one.title, as: keyOf(one.as), needed: one.needed })),
      })),
    });
    called.suggest(nameFrom(sheets.map(({ plural }) => plural)));
  };

  /** A column is read as something else: what fits now is looked at anew. */
  const turn = async (): Promise<void> => {
    if (!source) return;
    const kinds = choosing.getValues('sheets').map(({ columns }) => columns.map(({ as }) => kindOf(as)));
    const found = await look(source, kinds);
    if (!found) return;
    const { sheets } = found;
    setLooked(sheets);
    sheets.forEach(({ columns }, s) =>
      columns.forEach(({ needed }, c) => {
        if (!needed) choosing.setValue(`sheets.${s}.columns.${c}.needed`, false);
      }),
    );
  };

  const make = async ({ name, slug }: Called): Promise<void> => {
    setProblem('');
    if (!source || !(await choosing.trigger())) return;
    const sheets = choosing.getValues('sheets').map(({ columns, ...names }): SheetChoice => ({
      ...names,
      columns: columns.map((one) => ({ ...one, as: kindOf(one.as) })),
    }));
    const form = new FormData();
    source(form);
    form.append(
      'make',
      JSON.stringify({ slug, make: { name: name.trim(), currency, ...mannersHere(), sheets } }),
    );
    const says = 'Creating the application…';
    setBusy({ says });
    const { signal } = (going.current = new AbortController());
    const answer = await sendProgressing(
      makeFromSheets,
      { body: form },
      (done, of) => setBusy({ says, done, of }),
      signal,
    );
    if (answer.ok) {
      const { viewer = '' } = answer.value;
      return window.location.assign(`/studio/${slug}/gates?${new URLSearchParams({ viewer })}`);
    }
    setBusy(undefined);
    if (!called.refuse(answer.fields)) setProblem(answer.detail);
  };

  return (
    <Form
      className="grid grid-cols-[minmax(0,1fr)] gap-4"
      onSubmit={(event) => void called.form.handleSubmit(make)(event)}
    >
      {of === 'files' ? (
        <PickFiles
          disabled={busy?.of !== undefined}
          onPick={(from) => void choose(from)}
          onProblem={(said) => {
            setLooked(undefined);
            setProblem(said);
          }}
        />
      ) : (
        <PickTables disabled={busy !== undefined} onPick={(from) => void choose(from)} />
      )}
      <FieldMessage text={problem} />
      {looked && (
        <>
          {looked.map((sheet, s) => (
            <SheetTable
              key={s}
              at={s}
              sheets={looked}
              sheet={sheet}
              form={choosing}
              onKind={() => void turn()}
            />
          ))}
          <h2 className="mt-2 text-[16px] font-semibold">The application</h2>
          <CalledFields called={called} />
          <CurrencyChoice value={currency} onChange={setCurrency} />
        </>
      )}
      {busy && <Progress {...busy} onStop={() => going.current?.abort()} />}
      {looked && !busy && (
        <span>
          <button type="submit" className="button button-main">
            Create application with {looked.reduce((sum, { rows }) => sum + rows, 0).toLocaleString('en')}{' '}
            sample records
          </button>
        </span>
      )}
    </Form>
  );
}
