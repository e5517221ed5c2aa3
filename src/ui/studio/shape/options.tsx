'use client';

import { ArrowUp, Trash2 } from 'lucide-react';
import { newId, type Value } from '@/core/model';
import { useBench } from '../gates/bench';
import { KeptText } from '../people/parts';
import { useChange } from './use-change';

interface Option {
  readonly id: string;
  readonly name: string;
}

interface Props {
  readonly options: readonly Option[];
  /** What a new record has: an option that is taken away is none any more. */
  readonly initial: Value | undefined;
}

/** The options of a choice, in their order: renamed, added, taken away. Records keep what they have by its id. */
export function Options({ options, initial }: Props) {
  const { mayChange } = useBench();
  const change = useChange();
  const put = (next: readonly Option[]): void =>
    change({
      type: { kind: 'choice', options: next },
      ...(initial !== undefined && !next.some(({ id }) => id === initial) && { initial: null }),
    });
  return (
    <fieldset className="mb-2">
      <legend className="text-quiet">Options</legend>
      <ul className="grid gap-1">
        {options.map((one, n) => (
          <li key={one.id} className="flex items-center gap-1">
            <KeptText
              label={`Option ${n + 1}`}
              value={one.name}
              disabled={!mayChange}
              onKeep={(name) => put(options.with(n, { ...one, name }))}
            />
            {mayChange && (
              <>
                <button
                  type="button"
                  aria-label={`Move ${one.name} up`}
                  disabled={n === 0}
                  className="grid size-[26px] shrink-0 place-items-center hover:bg-sheet disabled:text-rule"
                  onClick={() => put(options.toSpliced(n, 1).toSpliced(n - 1, 0, one))}
                >
                  <ArrowUp size={14} aria-hidden />
                </button>
                <button
                  type="button"
                  aria-label={`Take ${one.name} away`}
                  disabled={options.length === 1}
                  className="grid size-[26px] shrink-0 place-items-center hover:bg-sheet disabled:text-rule"
                  onClick={() => put(options.toSpliced(n, 1))}
                >
                  <Trash2 size={14} aria-hidden />
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
      {mayChange && (
        <button
          type="button"
          className="link"
          onClick={() => put([...options, { id: newId(), name: `Option ${options.length + 1}` }])}
        >
          Add an option
        </button>
      )}
    </fieldset>
  );
}
