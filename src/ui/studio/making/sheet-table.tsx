'use client';

import type { UseFormReturn } from 'react-hook-form';
import type { LookedColumn, LookedSheet } from '@/contract/studio/making';
import { counted } from '@/core/edit';
import { kindOf, kindsFor } from './kinds';
import { Select } from '@/ui/parts/select';

/** What is chosen for each sheet and column; what a column is read as stands there by its key. */
export interface ChosenSheets {
  readonly sheets: {
    readonly name: string;
    readonly plural: string;
    readonly columns: { readonly name: string; readonly as: string; readonly needed: boolean }[];
  }[];
}

interface Props {
  readonly at: number;
  readonly sheets: readonly LookedSheet[];
  readonly sheet: LookedSheet;
  readonly form: UseFormReturn<ChosenSheets>;
  readonly onKind: () => void;
}

/** One file: what its rows are called, and what each of its columns becomes. */
export function SheetTable({ at, sheets, sheet, form, onKind }: Props) {
  const { register, watch, formState } = form;
  const errors = formState.errors.sheets?.[at];
  const needed = { validate: (text: string) => text.trim() !== '' || 'Required.', maxLength: 120 };
  return (
    <section aria-label={sheet.plural} className="border-t-2 border-ink bg-paper px-4 pt-3 pb-4">
      <div className="mb-3 flex items-end gap-4">
        <label>
          <span className="block text-quiet">Plural name</span>
          <input className="field-box w-56" {...register(`sheets.${at}.plural`, needed)} />
        </label>
        <label>
          <span className="block text-quiet">Name</span>
          <input className="field-box w-56" {...register(`sheets.${at}.name`, needed)} />
        </label>
        <span className="pb-1 text-quiet">{sheet.rows.toLocaleString('en')} rows</span>
        {(errors?.name ?? errors?.plural) && (
          <span role="alert" className="pb-1 font-medium">
            Enter a name and a plural name.
          </span>
        )}
      </div>
      <table aria-label={`Columns of ${sheet.name}`} className="w-full table-fixed text-left">
        <thead>
          <tr className="border-y border-rule">
            <th className="w-[20%] px-1 py-1 font-medium">Field</th>
            <th className="w-[24%] px-1 py-1 font-medium">Type</th>
            <th className="w-20 px-1 py-1 font-medium">Required</th>
            <th className="px-1 py-1 font-medium">For example</th>
            <th className="w-[22%] px-1 py-1 font-medium">Does not match</th>
          </tr>
        </thead>
        <tbody>
          {sheet.columns.map((column, c) => {
            const place = `sheets.${at}.columns.${c}` as const;
            const as = kindOf(watch(`${place}.as`) ?? 'text');
            return (
              <tr key={c} className="border-b border-sheet align-top">
                <td className="px-1 py-1">
                  <input
                    aria-label={`Name of the field for ${column.name}`}
                    className="field-box"
                    readOnly={as.kind === 'left'}
                    {...register(`${place}.name`, needed)}
                  />
                  {errors?.columns?.[c]?.name && (
                    <span role="alert" className="font-medium">
                      Enter a name.
                    </span>
                  )}
                </td>
                <td className="px-1 py-1">
                  <Select
                    aria-label={`Type of ${column.name}`}
                    {...register(`${place}.as`, { onChange: onKind })}
                    options={kindsFor(sheets, at, column.as).map(([key, words]) => ({
                      id: key,
                      name: words,
                    }))}
                  />
                </td>
                <td className="px-1 py-1.5 text-center">
                  <input
                    type="checkbox"
                    aria-label={`Is ${column.name} required?`}
                    className="size-4 accent-open"
                    {...register(`${place}.needed`)}
                  />
                </td>
                <td className="truncate px-1 py-1.5 text-quiet" title={column.examples.join(', ')} dir="auto">
                  {column.examples.join(', ') || 'empty'}
                </td>
                <td className="px-1 py-1.5">
                  <Misfits column={column} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** The cells that would be left empty, and how many rows have nothing there. */
function Misfits({ column: { misfits, misfitCount, empty } }: { column: LookedColumn }) {
  const [first] = misfits;
  if (!first)
    return <span className="text-quiet">{empty > 0 ? `${empty.toLocaleString('en')} empty` : ''}</span>;
  const all = misfits.map(({ line, cell }) => `line ${line}: ${cell}`).join('\n');
  return (
    <span className="block" title={all}>
      <span className="font-medium">{counted(misfitCount, 'stays empty', 'stay empty')}</span>
      <span className="block truncate text-quiet">
        line {first.line}: {first.cell}
      </span>
    </span>
  );
}
