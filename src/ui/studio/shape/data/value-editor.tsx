'use client';

import { useState } from 'react';
import { type EntityField, type Manner, unitsOf, type Value } from '@/core/model';
import { dataRows } from '@/contract/studio/data';
import type { RecordsFrom } from './records-from';
import { ChooseBox, useBox } from '../../../parts/choose-box';
import { OnlyDays } from '../../../parts/day-box';
import { useAsked, useSettled } from '@/ui/client/queries';

interface Props {
  readonly field: EntityField;
  readonly value: Value | null;
  /** What the record is called that it points to. */
  readonly label: string | undefined;
  readonly manner: Manner;
  readonly from: RecordsFrom;
  readonly onWrite: (value: Value | null) => void | Promise<void>;
  /** It is left without anything written. */
  readonly onLeave?: () => void;
}

/** Writes one value of a record, by its type. */
export function ValueEditor(props: Props) {
  const { field, value, manner, onWrite } = props;
  const { type } = field;
  const focused = props.onLeave !== undefined;
  switch (type.kind) {
    case 'record':
      return <RecordEditor {...props} entity={type.entity} />;
    case 'date':
      return (
        <OnlyDays
          aria-label={field.name}
          language={manner.language}
          value={typeof value === 'string' ? value : ''}
          onDay={(day) => void onWrite(day || null)}
        />
      );
    case 'choice':
    case 'unit':
    case 'boolean': {
      const options =
        type.kind === 'choice'
          ? type.options
          : type.kind === 'unit'
            ? unitsOf(manner)
            : [
                { id: 'true', name: 'Yes' },
                { id: 'false', name: 'No' },
              ];
      return (
        <select
          aria-label={field.name}
          className="field-box"
          autoFocus={focused}
          value={value === null ? '' : String(value)}
          onBlur={props.onLeave}
          onChange={(event) => {
            const chosen = event.target.value;
            void onWrite(chosen === '' ? null : type.kind === 'boolean' ? chosen === 'true' : chosen);
          }}
        >
          <option value=""></option>
          {options.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      );
    }
    default:
      return <TextEditor {...props} focused={focused} />;
  }
}

/** A text or a number: kept when it is left, or with Enter. */
function TextEditor({ field, value, onWrite, focused }: Props & { readonly focused: boolean }) {
  const [written, setWritten] = useState(typeof value === 'string' ? value : '');
  const long = field.type.kind === 'text' && field.type.long === true;
  const keep = (): void => void onWrite(written.trim() === '' ? null : written);
  const common = {
    'aria-label': field.name,
    className: 'field-box',
    autoFocus: focused,
    value: written,
    dir: 'auto',
    onBlur: keep,
  };
  if (long) return <textarea rows={3} {...common} onChange={(event) => setWritten(event.target.value)} />;
  return (
    <input
      type="text"
      {...common}
      inputMode={field.type.kind === 'text' ? 'text' : 'decimal'}
      onChange={(event) => setWritten(event.target.value)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        keep();
      }}
    />
  );
}

const PAUSE_MS = 150;
/** No record's id. */
const NONE = '';

function RecordEditor({ field, value, label, entity, from, onWrite }: Props & { readonly entity: string }) {
  const box = useBox();
  const words = useSettled(box.words, PAUSE_MS);
  const [chosen, setChosen] = useState<string>();
  const { data, error } = useAsked(
    dataRows,
    box.open ? { app: from.app, entity, query: { records: from.records, q: words } } : undefined,
  );
  const named = (data?.rows ?? []).map((row) => ({
    key: row.id,
    name: String(row.values[data?.entity.labelField ?? ''] ?? row.id),
  }));
  return (
    <ChooseBox
      box={box}
      label={field.name}
      placeholder="Type to search"
      none={error ? error.message : data ? 'Nothing found' : 'Looking …'}
      asking={!data || words !== box.words}
      groups={[{ choices: named }]}
      always={value === null || field.required ? undefined : { key: NONE, name: 'None' }}
      onChoose={(key) => {
        setChosen(named.find((one) => one.key === key)?.name);
        void onWrite(key === NONE ? null : key);
      }}
      trigger={
        <button type="button" aria-label={field.name} className="field-box truncate text-left">
          {chosen ?? label ?? (value === null ? <span className="text-quiet">Choose</span> : String(value))}
        </button>
      }
    />
  );
}
