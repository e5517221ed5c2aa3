'use client';

import { useBench } from '../frame/bench';
import { Labelled } from './labelled';

interface Props {
  readonly label: string;
  readonly value: string;
  /** What can be chosen: what is kept, and how it is called. */
  readonly options: readonly (readonly [string, string])[];
  readonly onChoose: (value: string) => void;
}

/** A setting of the selected element that is one of several. */
export function Choice({ label, value, options, onChoose }: Props) {
  const { mayChange } = useBench();
  return (
    <Labelled label={label}>
      <select
        className="field-box"
        disabled={!mayChange}
        value={value}
        onChange={(event) => onChoose(event.target.value)}
      >
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
