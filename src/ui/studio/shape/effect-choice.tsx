'use client';

import { effectKey, effectsOn } from '@/core/edit';
import type { Effect } from '@/core/model';
import { useBench } from '../frame/bench';
import { ValueBox } from '@/ui/parts/value-box';
import { KeptText } from '@/ui/parts/kept-text';
import { Labelled } from './labelled';
import { useChange } from './use-change';
import { Select } from '@/ui/parts/select';

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
      <Labelled label="Effect">
        <Select
          disabled={!mayChange}
          value={effectKey(effect)}
          onChoose={(chosen) => {
            const next = all.find(({ key }) => key === chosen);
            if (next) change({ effect: next.effect });
          }}
          options={all.map(({ key, name, about }) => ({ id: key, name: `${name}: ${about}` }))}
        />
      </Labelled>
      {effect.do === 'set-session' && value && (
        <Labelled label={`Sets ${value.name} to`}>
          <ValueBox
            label={`Sets ${value.name} to`}
            manner={definition}
            none="not set"
            type={value.type}
            value={effect.to}
            onChange={(to) => change({ effect: { ...effect, to } })}
          />
        </Labelled>
      )}
      {effect.do === 'visit' && (
        <Labelled label="Web address (https)">
          <KeptText
            label="Web address (https)"
            value={effect.url}
            disabled={!mayChange}
            onKeep={(url) => change({ effect: { ...effect, url } })}
          />
        </Labelled>
      )}
    </>
  );
}
