'use client';

import { comparedKind, type Type } from '@/core/condition';
import type { Literal, DisplayFormat, Value } from '@/core/model';
import { OnlyDays } from './day-box';
import { KeptText } from './kept-text';
import { Select } from './select';

export interface ValueBoxProps {
  readonly type: Type;
  readonly value: Value | null;
  /** Told what is in it, and null where it is empty. */
  readonly onChange: (value: Value | null) => void;
  /** How days are written, and which units there are. */
  readonly manner: Pick<DisplayFormat, 'language' | 'units'>;
  readonly label?: string | undefined;
  /** What stands for no value, of what is chosen; undefined where there must be one. */
  readonly none?: string | undefined;
  readonly className?: string;
  readonly disabled?: boolean;
  readonly autoFocus?: boolean;
  readonly onLeave?: (() => void) | undefined;
  /** A text is told when it is left, or with Enter, rather than with each key. */
  readonly whenLeft?: boolean;
}

/** Writes a value of any type. What points to a record is written by its id; who has records gives a box of their own. */
export function ValueBox(props: ValueBoxProps) {
  const Box = BOXES[comparedKind(props.type).literal];
  return <Box {...props} />;
}

function TextBox({
  type,
  value,
  onChange,
  label,
  className = '',
  disabled,
  whenLeft,
  ...more
}: ValueBoxProps) {
  const { form } = comparedKind(type);
  const text = value === null ? '' : String(value);
  if (whenLeft)
    return (
      <KeptText
        label={label ?? ''}
        mayBeEmpty={more.none !== undefined}
        placeholder={more.none ?? ''}
        value={text}
        disabled={disabled ?? false}
        className={className}
        onKeep={(next) => onChange(next === '' ? null : next)}
      />
    );
  const common = {
    'aria-label': label,
    className: `field-box ${className}`,
    disabled,
    autoFocus: more.autoFocus,
    onBlur: more.onLeave,
    value: text,
  };
  if (type.kind === 'text' && type.long)
    return <textarea rows={3} {...common} onChange={({ target }) => onChange(target.value || null)} />;
  return (
    <input
      type="text"
      inputMode={form === 'decimal' ? 'decimal' : 'text'}
      {...common}
      onChange={({ target }) => onChange(target.value || null)}
    />
  );
}

function ListBox({ type, value, onChange, manner, label, none, onLeave, ...more }: ValueBoxProps) {
  const { form, listed } = comparedKind(type);
  const options =
    form === 'boolean'
      ? [
          { id: 'true', name: 'Yes' },
          { id: 'false', name: 'No' },
        ]
      : (listed?.(type, { units: manner.units, entities: [] }) ?? []);
  return (
    <Select
      aria-label={label}
      className={more.className}
      disabled={more.disabled}
      autoFocus={more.autoFocus}
      value={value === null ? '' : String(value)}
      onBlur={onLeave}
      onChoose={(chosen) => onChange(chosen === '' ? null : form === 'boolean' ? chosen === 'true' : chosen)}
      none={none}
      options={options}
    />
  );
}

function DateBox({ value, onChange, manner, label, none, disabled }: ValueBoxProps) {
  return (
    <OnlyDays
      {...(label !== undefined && { 'aria-label': label })}
      {...(disabled !== undefined && { disabled })}
      language={manner.language}
      value={value === null ? '' : String(value)}
      onDay={(day) => (day || none !== undefined) && onChange(day || null)}
    />
  );
}

function TimeBox({ value, onChange, label = 'Time', className = 'w-28' }: ValueBoxProps) {
  return (
    <input
      aria-label={label}
      type="time"
      className={`field-box ${className}`}
      value={String(value ?? '').slice(0, 5)}
      onChange={({ target }) => target.value && onChange(target.value)}
    />
  );
}

/** A day and a time of it. */
function MomentBox(props: ValueBoxProps) {
  const [day = '', time = '00:00:00'] = String(props.value ?? '').split('T');
  return (
    <span className="flex w-64 items-center gap-1">
      <DateBox {...props} value={day} onChange={(next) => props.onChange(`${String(next)}T${time}`)} />
      <TimeBox
        {...props}
        label="Time"
        value={time}
        onChange={(next) => props.onChange(`${day}T${String(next)}:00`)}
      />
    </span>
  );
}

/** The box for each way in which constants are written. */
const BOXES: Readonly<Record<Literal, (props: ValueBoxProps) => React.JSX.Element>> = {
  string: TextBox,
  number: TextBox,
  id: TextBox,
  date: DateBox,
  time: TimeBox,
  moment: MomentBox,
  weekday: ListBox,
  truth: ListBox,
  name: ListBox,
};
