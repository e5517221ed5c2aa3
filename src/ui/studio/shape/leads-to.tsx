'use client';

import type { Screen } from '@/core/model';
import { useBench } from '../frame/bench';
import { Labelled } from './labelled';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly label: string;
  /** What it is called to lead nowhere; without it, it has to lead somewhere. */
  readonly none?: string;
  readonly value: string | undefined;
  readonly fits: (screen: Screen) => boolean;
  /** Told null where it leads nowhere. */
  readonly onChange: (screen: string | null) => void;
}

/** Which screen something leads to, of those that it can. */
export function LeadsTo({ label, none, value, fits, onChange }: Props) {
  const { compiled, mayChange } = useBench();
  return (
    <Labelled label={label}>
      <Select
        disabled={!mayChange}
        value={value ?? ''}
        onChoose={(chosen) => onChange(chosen || null)}
        none={none !== undefined ? none : undefined}
        options={compiled.tree
          .screens()
          .filter(fits)
          .map(({ id, name, address }) => ({ id, name: `${name} (/${address})` }))}
      />
    </Labelled>
  );
}
