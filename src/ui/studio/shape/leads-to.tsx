'use client';

import type { Screen } from '@/core/model';
import { useBench } from '../frame/bench';
import { Labelled } from './labelled';

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
      <select
        className="field-box"
        disabled={!mayChange}
        value={value ?? ''}
        onChange={(event) => onChange(event.target.value || null)}
      >
        {none !== undefined && <option value="">{none}</option>}
        {compiled.tree
          .screens()
          .filter(fits)
          .map(({ id, name, address }) => (
            <option key={id} value={id}>
              {name} (/{address})
            </option>
          ))}
      </select>
    </Labelled>
  );
}
