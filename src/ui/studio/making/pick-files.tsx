'use client';

import { sampleSheets } from '@/contract/studio/making';
import { send } from '@/ui/client/send';
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
  const tryOut = async (): Promise<void> => {
    const answer = await send(sampleSheets, {});
    if (!answer.ok) return onProblem(answer.detail);
    choose(answer.value.files.map(({ name, text }) => new File([text], name, { type: 'text/csv' })));
  };
  return (
    <div className="grid gap-1">
      <FileField
        label="CSV files, one for each entity, with column names in the first line"
        multiple
        accept=".csv,.tsv,.txt,text/csv"
        disabled={disabled}
        onFiles={choose}
      />
      <p className="text-quiet">
        No files at hand?{' '}
        <button type="button" className="link" disabled={disabled} onClick={() => void tryOut()}>
          Try it with sample files
        </button>{' '}
        about the plots of a fictional garden association.
      </p>
    </div>
  );
}
