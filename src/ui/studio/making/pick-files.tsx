'use client';

import { tooLarge } from '../shared/file-size';
import type { Source } from './source';
import { FileField } from '../../parts/file-field';

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
    <FileField
      label="CSV files, one for each entity, with column names in the first line"
      multiple
      accept=".csv,.tsv,.txt,text/csv"
      disabled={disabled}
      onFiles={choose}
    />
  );
}
