'use client';

import { useQuery } from '@tanstack/react-query';
import { ChevronDown } from 'lucide-react';
import { useState, type Ref } from 'react';
import { ChooseBox, useBox } from '../parts/choose-box';
import { Queries, useSettled } from '@/ui/client/queries';
import { useHost, type Option } from './host';

interface Props {
  readonly id: string;
  /** What the field is called. */
  readonly name: string;
  readonly entity: string;
  readonly value: string;
  /** The label of the value, where it is still the one that the page came with. */
  readonly label: string | undefined;
  readonly required: boolean;
  readonly onChange: (id: string) => void;
  readonly onBlur: () => void;
  readonly inputRef: Ref<HTMLButtonElement>;
  readonly describedBy: string | undefined;
}

/** Somebody who types is searched for once they pause. */
const PAUSE_MS = 150;

/** No record's id: it takes the choice back. */
const NONE = '';

/** Picks a record by searching over what the server offers, which is only what the viewer may see. */
export function RecordPicker(props: Props) {
  return (
    <Queries>
      <Picker {...props} />
    </Queries>
  );
}

function Picker({ id, name, entity, value, onChange, onBlur, inputRef, describedBy, ...props }: Props) {
  const { records } = useHost();
  const box = useBox();
  const [chosen, setChosen] = useState<Option>();
  const words = useSettled(box.words, PAUSE_MS);
  const { data, error } = useQuery({
    queryKey: [entity, words],
    queryFn: () => records.search(entity, words),
    enabled: box.open,
  });
  const asking = words !== box.words || (!data && !error);
  const options = asking ? [] : (data ?? []);
  const label = value === NONE ? '' : chosen?.id === value ? chosen.label : (props.label ?? value);
  return (
    <ChooseBox
      box={box}
      label={name}
      placeholder="Type to search"
      none={error ? error.message : asking ? 'Searching…' : 'No matches'}
      asking={asking}
      width="w-(--radix-popover-trigger-width)"
      groups={[{ choices: options.map((one) => ({ key: one.id, name: one.label })) }]}
      always={value === NONE || props.required ? undefined : { key: NONE, name: 'None' }}
      onChoose={(key) => {
        setChosen(options.find((one) => one.id === key));
        onChange(key);
      }}
      trigger={
        <button
          type="button"
          id={id}
          ref={inputRef}
          role="combobox"
          aria-label={`${name}: ${label || 'none'}`}
          aria-invalid={describedBy ? true : undefined}
          aria-describedby={describedBy}
          aria-required={props.required || undefined}
          className="field-box flex items-center gap-1.5 text-left"
          onBlur={onBlur}
          onKeyDown={(event) => {
            // Who begins to type is searching already.
            const writes = event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey;
            if (!writes) return;
            event.preventDefault();
            box.setWords(event.key);
            box.turn(true);
          }}
        >
          <span className={`min-w-0 flex-1 truncate ${label ? '' : 'text-quiet'}`}>{label || 'Choose'}</span>
          <ChevronDown size={14} aria-hidden className="shrink-0 text-quiet" />
        </button>
      }
    />
  );
}
