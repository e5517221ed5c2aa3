'use client';

import type { ReactNode } from 'react';
import { addressOnNaming, editBetween } from '@/core/edit';
import { useStateFor } from '../../parts/use-state-for';
import { useBench } from '../frame/bench';
import { NamedActionForm } from '../gates/named-action-form';
import { KeptText } from '@/ui/parts/kept-text';
import { ChartSettings } from './chart-settings';
import { EffectChoice } from './effect-choice';
import { FieldChoice } from './field-choice';
import { FieldSettings } from './field-settings';
import { Labelled } from './labelled';
import { LeadsTo } from './leads-to';
import { ListFilter } from './list-filter';
import { ListOf } from './list-of';
import { PartFieldSettings } from './part-field-settings';
import { SessionSets } from './session-sets';
import { useChange } from './use-change';
import { Select } from '@/ui/parts/select';

/** What the selected element is by itself: its name, and what belongs to its kind. */
export function Settings() {
  const { definition, selected, compiled, mayChange, apply } = useBench();
  const change = useChange();
  const disabled = !mayChange;
  const named = (label: string, key: string, value: string): ReactNode => (
    <Labelled label={label}>
      <KeptText label={label} value={value} disabled={disabled} onKeep={(text) => change({ [key]: text })} />
    </Labelled>
  );
  switch (selected.kind) {
    case 'application':
      return (
        <Labelled label="Name">
          <KeptText
            label="Name"
            value={definition.name}
            disabled={disabled}
            onKeep={(name) => apply({ do: 'changeSettings', from: { name: definition.name }, to: { name } })}
          />
        </Labelled>
      );
    case 'menu':
      // The application's has the application's name.
      return 'name' in selected.node ? named('Title shown above the menu', 'name', selected.node.name) : null;
    case 'text':
      return (
        <TextSetting value={selected.node.text} disabled={disabled} onKeep={(text) => change({ text })} />
      );
    case 'screen':
      return (
        <>
          <Labelled label="Name">
            <KeptText
              label="Name"
              value={selected.node.name}
              disabled={disabled}
              onKeep={(name) => {
                const address = addressOnNaming(definition, selected.node, name);
                change(address === selected.node.address ? { name } : { name, address });
              }}
            />
          </Labelled>
          {named('Address', 'address', selected.node.address)}
          <SessionSets screen={selected.node} />
        </>
      );
    case 'field':
      return <PartFieldSettings part={selected.node} />;
    case 'column':
      return <FieldChoice field={selected.node.field} />;
    case 'list':
      return (
        <>
          {named('Name', 'name', selected.node.name)}
          <ListOf list={selected.node} />
          <ListFilter list={selected.node} />
          <LeadsTo
            label="Screen opened by a row"
            none="Nothing"
            value={selected.node.opens}
            fits={({ binds }) => binds?.entity === selected.node.entity && binds.record === 'existing'}
            onChange={(opens) => change({ opens })}
          />
        </>
      );
    case 'chart':
      return (
        <>
          {named('Name', 'name', selected.node.name)}
          <ChartSettings chart={selected.node} />
        </>
      );
    case 'button':
      return (
        <>
          {named('Name', 'name', selected.node.name)}
          <EffectChoice effect={selected.node.effect} />
        </>
      );
    case 'menu-item':
      return (
        <>
          {named('Name', 'name', selected.node.name)}
          <LeadsTo
            label="Opens screen"
            none="None (heading only)"
            value={selected.node.screen}
            fits={({ binds }) => binds?.record !== 'existing'}
            onChange={(screen) => change({ screen })}
          />
        </>
      );
    case 'rows':
      return (
        <>
          {named('Name', 'name', selected.node.name)}
          {named('Plural name', 'plural', selected.node.plural)}
          <Labelled label="Record label">
            <Select
              disabled={disabled}
              value={selected.node.labelField}
              onChoose={(chosen) => change({ labelField: chosen })}
              options={selected.node.fields.filter(({ type }) => type.kind === 'text')}
            />
          </Labelled>
        </>
      );
    case 'action': {
      const entity = compiled.tree.entityOf(selected.id);
      if (selected.node.kind !== 'named' || !entity) return named('Name', 'name', selected.node.name);
      return (
        <NamedActionForm
          entity={entity}
          action={selected.node}
          onChange={(to) => {
            const entities = definition.entities.map((one) => (one.id === to.id ? to : one));
            const edit = editBetween(definition, { ...definition, entities });
            if (edit) apply(edit);
          }}
        />
      );
    }
    case 'data-field':
      return <FieldSettings field={selected.node} />;
    case 'area':
    case 'face':
    case 'people':
    case 'section':
      return named('Name', 'name', selected.node.name);
  }
}

interface TextProps {
  readonly value: string;
  readonly disabled: boolean;
  readonly onKeep: (text: string) => void;
}

/** A text of several lines, kept when its field is left. */
function TextSetting({ value, disabled, onKeep }: TextProps) {
  const [written, setWritten] = useStateFor(value, value);
  return (
    <Labelled label="Text">
      <textarea
        rows={4}
        className="field-box"
        disabled={disabled}
        value={written}
        onChange={(event) => setWritten(event.target.value)}
        onBlur={() => {
          const text = written.trim();
          if (text === '') setWritten(value);
          else if (text !== value) onKeep(text);
        }}
      />
    </Labelled>
  );
}
