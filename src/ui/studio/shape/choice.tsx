'use client';

import { useBench } from '../frame/bench';
import { Labelled } from './labelled';
import { Select } from '@/ui/parts/select';

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
      <Select
        disabled={!mayChange}
        value={value}
        onChoose={onChoose}
        options={options.map(([key, name]) => ({ id: key, name }))}
      />
    </Labelled>
  );
}
