'use client';

import { useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import type { CellKind, SheetChoice } from '@/core/making';
import { ask } from '../../live/host';
import { Told } from '../../parts/fields';
import { CurrencyChoice } from './currency-choice';
import { keyOf, kindOf, type LookedSheet } from './kinds';
import { CalledFields, useCalled, type Called } from './called';
import { mannersHere } from './manners';
import { Progress } from '../shared/progress';
import { sendProgressing } from '../shared/progressing';
import { SheetTable, type ChosenSheets } from './sheet-table';

const API = '/studio/api/making';
/** What the server takes at once. */
const MOST_MEGABYTES = 30;

interface Looked {
  readonly sheets: readonly LookedSheet[];
  /** The currency whose sign stands beside money. */
  readonly currency?: string;
}

/** A name for an application of these things: "Plots and inspections". */
function nameFrom(things: readonly string[]): string {
  const words = new Intl.ListFormat('en').format(things.slice(0, 3)).toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** An application from CSV files: what they hold is shown, and corrected, before anything is made. */
export function FromSheets() {
  const called = useCalled();
  const choosing = useForm<ChosenSheets>({ defaultValues: { sheets: [] } });
  const [files, setFiles] = useState<readonly File[]>([]);
  const [looked, setLooked] = useState<readonly LookedSheet[]>();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState<{ readonly says: string; readonly done?: number; readonly of?: number }>();
  const [currency, setCurrency] = useState('EUR');
  const going = useRef<AbortController>(undefined);

  const look = async (some: readonly File[], kinds?: readonly (readonly CellKind[])[]) => {
    going.current?.abort();
    const { signal } = (going.current = new AbortController());
    const form = new FormData();
    for (const file of some) form.append('files', file);
    if (kinds) form.append('kinds', JSON.stringify(kinds));
    const answer = await ask<Looked>(`${API}/look`, {
      method: 'POST',
      body: form,
      signal,
    });
    if (signal.aborted) return undefined;
    if (!answer.ok) setProblem(answer.detail);
    return answer.ok ? answer.value : undefined;
  };

  const choose = async (some: readonly File[]): Promise<void> => {
    setFiles(some);
    setProblem('');
    setLooked(undefined);
    const megabytes = some.reduce((sum, { size }) => sum + size, 0) / 1e6;
    if (megabytes > MOST_MEGABYTES)
      return setProblem(
        `These files are ${Math.ceil(megabytes)} MB; at most ${MOST_MEGABYTES} MB can be taken at once. Begin with fewer rows, and add the others afterwards.`,
      );
    setBusy({ says: 'Looking at what the columns hold …' });
    const found = await look(some);
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
    const kinds = choosing.getValues('sheets').map(({ columns }) => columns.map(({ as }) => kindOf(as)));
    const found = await look(files, kinds);
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
    if (!(await choosing.trigger())) return;
    const sheets = choosing.getValues('sheets').map(({ columns, ...names }): SheetChoice => ({
      ...names,
      columns: columns.map((one) => ({ ...one, as: kindOf(one.as) })),
    }));
    const form = new FormData();
    for (const file of files) form.append('files', file);
    form.append(
      'make',
      JSON.stringify({ slug, make: { name: name.trim(), currency, ...mannersHere(), sheets } }),
    );
    const says = 'Making it …';
    setBusy({ says });
    const { signal } = (going.current = new AbortController());
    const answer = await sendProgressing<{ viewer?: string }>(
      `${API}/sheets`,
      form,
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
    <form
      className="grid grid-cols-[minmax(0,1fr)] gap-4"
      noValidate
      onSubmit={(event) => void called.form.handleSubmit(make)(event)}
    >
      <label className="max-w-3xl">
        <span className="text-quiet">
          CSV files, one for each kind of thing; the first line names the columns
        </span>
        <input
          type="file"
          multiple
          accept=".csv,.tsv,.txt,text/csv"
          className="field-box"
          disabled={busy?.of !== undefined}
          onChange={(event) => void choose([...(event.target.files ?? [])])}
        />
      </label>
      <Told text={problem} />
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
            Make it, with {looked.reduce((sum, { rows }) => sum + rows, 0).toLocaleString('en')} sample
            records
          </button>
        </span>
      )}
    </form>
  );
}
