'use client';

import type { Source } from './source';

/** What the server takes at once. */
const MOST_MEGABYTES = 30;

interface Props {
  readonly disabled: boolean;
  readonly onPick: (source: Source) => void;
  readonly onProblem: (problem: string) => void;
}

/** CSV files of one's own. */
export function PickFiles({ disabled, onPick, onProblem }: Props) {
  const choose = (files: readonly File[]): void => {
    const megabytes = files.reduce((sum, { size }) => sum + size, 0) / 1e6;
    if (megabytes > MOST_MEGABYTES)
      return onProblem(
        `These files are ${Math.ceil(megabytes)} MB; at most ${MOST_MEGABYTES} MB can be taken at once. Begin with fewer rows, and add the others afterwards.`,
      );
    onPick((form) => {
      for (const file of files) form.append('files', file);
    });
  };
  return (
    <label className="max-w-3xl">
      <span className="text-quiet">
        CSV files, one for each kind of thing; the first line names the columns
      </span>
      <input
        type="file"
        multiple
        accept=".csv,.tsv,.txt,text/csv"
        className="field-box"
        disabled={disabled}
        onChange={(event) => choose([...(event.target.files ?? [])])}
      />
    </label>
  );
}
