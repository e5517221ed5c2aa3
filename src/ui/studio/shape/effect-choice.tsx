'use client';

import { effectsOn } from '@/core/edit';
import { sameJson, type Effect } from '@/core/model';
import { useBench } from '../gates/bench';
import { Labelled } from './labelled';
import { useChange } from './use-change';

/** What a button does, of all that it can where it stands. */
export function EffectChoice({ effect }: { effect: Effect }) {
  const { definition, selected, mayChange } = useBench();
  const change = useChange();
  const { screen, list } = selected;
  const all = screen ? effectsOn(definition, screen, list) : [];
  const now = all.find((one) => sameJson(one.effect, effect));
  return (
    <Labelled label="What it does">
      <select
        className="field-box"
        disabled={!mayChange}
        value={now?.key ?? ''}
        onChange={(event) => {
          const next = all.find(({ key }) => key === event.target.value);
          if (next) change({ effect: next.effect });
        }}
      >
        {!now && (
          <option value="">
            {effect.do === 'set-session' ? 'Sets a value of the session' : 'Something else'}
          </option>
        )}
        {all.map(({ key, name, about }) => (
          <option key={key} value={key}>
            {name}: {about}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
