'use client';

import { effectKey, effectsOn } from '@/core/edit';
import type { Effect } from '@/core/model';
import { useBench } from '../frame/bench';
import { ValueInput } from '../look/value-input';
import { KeptText } from '../people/parts';
import { Labelled } from './labelled';
import { useChange } from './use-change';

/** What a button does, of all that it can where it stands; and to what it sets a value, or where it leads. */
export function EffectChoice({ effect }: { effect: Effect }) {
  const { definition, selected, mayChange } = useBench();
  const change = useChange();
  const { screen, list } = selected;
  const all = screen ? effectsOn(definition, screen, list) : [];
  const value =
    effect.do === 'set-session' ? definition.sessionValues.find(({ id }) => id === effect.value) : undefined;
  return (
    <>
      <Labelled label="What it does">
        <select
          className="field-box"
          disabled={!mayChange}
          value={effectKey(effect)}
          onChange={(event) => {
            const next = all.find(({ key }) => key === event.target.value);
            if (next) change({ effect: next.effect });
          }}
        >
          {all.map(({ key, name, about }) => (
            <option key={key} value={key}>
              {name}: {about}
            </option>
          ))}
        </select>
      </Labelled>
      {effect.do === 'set-session' && value && (
        <Labelled label={`Sets ${value.name} to`}>
          <ValueInput
            label={`Sets ${value.name} to`}
            definition={definition}
            type={value.type}
            value={effect.to}
            onChange={(to) => change({ effect: { ...effect, to } })}
          />
        </Labelled>
      )}
      {effect.do === 'visit' && (
        <Labelled label="Leads to (https)">
          <KeptText
            label="Leads to (https)"
            value={effect.url}
            disabled={!mayChange}
            onKeep={(url) => change({ effect: { ...effect, url } })}
          />
        </Labelled>
      )}
    </>
  );
}
