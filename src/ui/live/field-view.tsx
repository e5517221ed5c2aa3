'use client';

import dynamic from 'next/dynamic';
import { useId } from 'react';
import { Controller, useFormContext } from 'react-hook-form';
import type { ShownField } from '@/core/access';
import type { Value } from '@/core/model';
import { DayBox } from '../parts/day-box';
import { useHost } from './host';
import { Select } from '@/ui/parts/select';

/** Only a screen with a field that points loads it. */
const RecordPicker = dynamic(() => import('./record-picker').then((one) => one.RecordPicker), {
  // With a boundary of its own, the rest of the screen works before it is here.
  loading: () => <div className="field-box text-quiet">…</div>,
});

/** A field: a control where it may be edited, else its value in words. */
export function FieldView({ field }: { field: ShownField }) {
  const id = useId();
  const { type } = field.input ?? {};
  const wide = field.wide || (type?.kind === 'text' && type.long) ? 'col-span-2' : '';
  const helpId = `${id}-help`;
  const help = field.help !== undefined && (
    <p id={helpId} className="mt-0.5 text-[12px] text-quiet">
      {field.help}
    </p>
  );
  if (!field.input)
    return (
      <div data-element={field.id} className={wide}>
        <div className="text-quiet">{field.label}</div>
        <div className="read-box whitespace-pre-wrap">
          {field.text || <span className="text-quiet">–</span>}
        </div>
        {help}
      </div>
    );
  return (
    <div data-element={field.id} className={wide}>
      <label htmlFor={id} className="text-quiet">
        {field.label}
        {field.input.required && <span> (required)</span>}
      </label>
      <Control id={id} field={field} input={field.input} helpId={help && helpId} />
      {help}
    </div>
  );
}

type Input = NonNullable<ShownField['input']>;

interface ControlProps {
  readonly id: string;
  readonly field: ShownField;
  readonly input: Input;
  /** What helps to fill it in, where something does. */
  readonly helpId: string | false;
}

function Control({ id, field, input, helpId }: ControlProps) {
  const { register, control, formState } = useFormContext<Record<string, Value>>();
  const problem = formState.errors[field.field]?.message;
  const { language } = useHost();
  const describedBy = [problem && `${id}-problem`, helpId].filter(Boolean).join(' ') || undefined;
  const common = {
    id,
    'aria-invalid': problem ? true : undefined,
    'aria-describedby': describedBy,
    'aria-required': input.required || undefined,
    className: `field-box ${problem ? 'border-2 border-ink' : ''}`,
    ...register(field.field),
  };
  return (
    <>
      {draw()}
      {problem && (
        <p id={`${id}-problem`} role="alert" className="mt-1 font-medium">
          {problem}
        </p>
      )}
    </>
  );

  function draw() {
    switch (input.type.kind) {
      case 'text':
        return input.type.long ? <textarea rows={3} {...common} /> : <input type="text" {...common} />;
      case 'money':
      case 'number':
        return <input type="text" inputMode="decimal" {...common} />;
      case 'date':
        return (
          <Controller
            control={control}
            name={field.field}
            render={({ field: { value, onChange, onBlur, ref, name } }) => (
              <DayBox
                id={id}
                name={name}
                language={language}
                value={typeof value === 'string' ? value : ''}
                onChange={onChange}
                onBlur={onBlur}
                inputRef={ref}
                required={input.required}
                invalid={problem !== undefined}
                describedBy={describedBy}
              />
            )}
          />
        );
      case 'boolean':
        return (
          <div className="py-1">
            <input {...common} type="checkbox" className="size-4 accent-open" />
          </div>
        );
      case 'choice':
        return <Select {...common} none="" options={input.type.options} />;
      case 'unit':
        // A unit is sent as a choice.
        return null;
      case 'record': {
        const { entity } = input.type;
        return (
          <Controller
            control={control}
            name={field.field}
            render={({ field: { value, onChange, onBlur, ref } }) => (
              <RecordPicker
                id={id}
                name={field.label}
                required={input.required}
                entity={entity}
                value={typeof value === 'string' ? value : ''}
                label={field.value === value ? field.text : undefined}
                onChange={onChange}
                onBlur={onBlur}
                inputRef={ref}
                describedBy={describedBy}
              />
            )}
          />
        );
      }
    }
  }
}
