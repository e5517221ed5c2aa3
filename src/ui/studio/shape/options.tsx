'use client';

import { ArrowUp, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { type ChoiceOption, newId, type Value } from '@/core/model';
import { useBench } from '../frame/bench';
import { KeptText } from '@/ui/parts/kept-text';
import { useChange } from './use-change';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly options: readonly ChoiceOption[];
  /** What a new record has: an option that is taken away is none any more. */
  readonly initial: Value | undefined;
}

/** The options of a choice, in their order: renamed, added, merged, taken away. Records keep what they have by its id. */
export function Options({ options, initial }: Props) {
  const { mayChange } = useBench();
  const change = useChange();
  const [going, setGoing] = useState<string>();
  const put = (next: readonly ChoiceOption[]): void =>
    change({
      type: { kind: 'choice', options: next },
      ...(initial !== undefined && !next.some(({ id }) => id === initial) && { initial: null }),
    });
  return (
    <fieldset className="mb-2">
      <legend className="text-quiet">Options</legend>
      <ul className="grid gap-1">
        {options.map((one, n) => (
          <li key={one.id} className="flex flex-wrap items-center gap-1">
            <KeptText
              label={`Option ${n + 1}`}
              value={one.name}
              disabled={!mayChange}
              className="min-w-0 flex-1"
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
                  aria-label={`Delete ${one.name}`}
                  disabled={options.length === 1}
                  className="grid size-[26px] shrink-0 place-items-center hover:bg-sheet disabled:text-rule"
                  onClick={() => setGoing(going === one.id ? undefined : one.id)}
                >
                  <Trash2 size={14} aria-hidden />
                </button>
              </>
            )}
            {going === one.id && (
              <Going
                name={one.name}
                others={options.toSpliced(n, 1)}
                onLeave={() => setGoing(undefined)}
                onGo={(into) => {
                  setGoing(undefined);
                  put(without(options, one, into));
                }}
              />
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
          Add option
        </button>
      )}
    </fieldset>
  );
}

/** The options without one; its records have the other one then, or nothing. */
function without(
  options: readonly ChoiceOption[],
  { id, merged = [] }: ChoiceOption,
  into: string,
): readonly ChoiceOption[] {
  return options
    .filter((one) => one.id !== id)
    .map((one) => (one.id === into ? { ...one, merged: [...(one.merged ?? []), id, ...merged] } : one));
}

interface GoingProps {
  readonly name: string;
  readonly others: readonly ChoiceOption[];
  readonly onLeave: () => void;
  /** Told the option that its records have from then on; empty: none. */
  readonly onGo: (into: string) => void;
}

/** Asks what the records have that had an option which is taken away. */
function Going({ name, others, onLeave, onGo }: GoingProps) {
  const [into, setInto] = useState('');
  return (
    <div className="w-full border-l-4 border-ink bg-plate px-2 py-1.5">
      <label>
        Records with {name} are changed to
        <Select value={into} onChoose={setInto} none="no value" options={others} />
      </label>
      <span className="mt-1.5 flex gap-3">
        <button type="button" className="button" onClick={() => onGo(into)}>
          Delete option
        </button>
        <button type="button" className="link" onClick={onLeave}>
          Cancel
        </button>
      </span>
    </div>
  );
}
