'use client';

import { useState } from 'react';
import { type EntityField, kindOf, type Literal, type DisplayFormat, type Value } from '@/core/model';
import { dataRows } from '@/contract/studio/data';
import type { RecordsFrom } from './records-from';
import { ChooseBox, useBox } from '../../../parts/choose-box';
import { ValueBox } from '@/ui/parts/value-box';
import { useAsked, useSettled } from '@/ui/client/queries';

interface Props {
  readonly field: EntityField;
  readonly value: Value | null;
  /** What the record is called that it points to. */
  readonly label: string | undefined;
  readonly manner: DisplayFormat;
  readonly from: RecordsFrom;
  readonly onWrite: (value: Value | null) => void | Promise<void>;
  /** It is left without anything written. */
  readonly onLeave?: () => void;
}

/** What is written letter by letter, and kept when it is left. */
const WRITTEN: readonly Literal[] = ['string', 'number'];

/** Writes one value of a record, by its type. */
export function ValueEditor(props: Props) {
  const { field, value, manner, onWrite, onLeave } = props;
  const { type } = field;
  if (type.kind === 'record') return <RecordEditor {...props} entity={type.entity} />;
  if (!WRITTEN.includes(kindOf(type).literal))
    return (
      <ValueBox
        label={field.name}
        type={type}
        manner={manner}
        none=""
        value={value}
        autoFocus={onLeave !== undefined}
        onLeave={onLeave}
        onChange={(next) => void onWrite(next)}
      />
    );
  return <TextEditor {...props} focused={onLeave !== undefined} />;
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
      none={error ? error.message : data ? 'No matches' : 'Searching…'}
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
