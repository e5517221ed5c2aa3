'use client';

import { tooLarge } from '../shared/file-size';
import type { Source } from './source';
import { chooseAgain } from '../../parts/choose-again';

interface Props {
  readonly disabled: boolean;
  readonly onPick: (source: Source) => void;
  readonly onProblem: (problem: string) => void;
}

/** CSV files of one's own. */
export function PickFiles({ disabled, onPick, onProblem }: Props) {
  const choose = (files: readonly File[]): void => {
    const problem = tooLarge(files);
    if (problem !== undefined) return onProblem(problem);
    onPick((form) => {
      for (const file of files) form.append('files', file);
    });
  };
  return (
    <label className="max-w-3xl">
      <span className="text-quiet">CSV files, one for each entity, with column names in the first line</span>
      <input
        type="file"
        multiple
        accept=".csv,.tsv,.txt,text/csv"
        className="field-box"
        disabled={disabled}
        onClick={chooseAgain}
        onChange={(event) => choose([...(event.target.files ?? [])])}
      />
    </label>
  );
}
