'use client';

import dynamic from 'next/dynamic';
import { useId } from 'react';
import { Controller, useFormContext } from 'react-hook-form';
import type { ShownField } from '@/core/access';
import type { Value } from '@/core/model';
import { DayBox } from '../parts/day-box';
import { useHost } from './host';

/** Only a screen with a field that points loads it. */
const RecordPicker = dynamic(() => import('./record-picker').then((one) => one.RecordPicker), {
  // With a boundary of its own, the rest of the screen works before it is here.
  loading: () => <div className="field-box text-quiet">…</div>,
});

/** A field: a control where it may be edited, else its value in words. */
export function FieldView({ field }: { field: ShownField }) {
  const id = useId();
  const wide = field.input?.type.kind === 'text' && field.input.type.long ? 'col-span-2' : '';
  if (!field.input)
    return (
      <div data-element={field.id} className={wide}>
        <div className="text-quiet">{field.label}</div>
        <div className="read-box whitespace-pre-wrap">
          {field.text || <span className="text-quiet">–</span>}
        </div>
      </div>
    );
  return (
    <div data-element={field.id} className={wide}>
      <label htmlFor={id} className="text-quiet">
        {field.label}
        {field.input.required && <span> (needed)</span>}
      </label>
      <Control id={id} field={field} input={field.input} />
    </div>
  );
}

type Input = NonNullable<ShownField['input']>;

function Control({ id, field, input }: { id: string; field: ShownField; input: Input }) {
  const { register, control, formState } = useFormContext<Record<string, Value>>();
  const problem = formState.errors[field.field]?.message;
  const { language } = useHost();
  const said = `${id}-problem`;
  const common = {
    id,
    'aria-invalid': problem ? true : undefined,
    'aria-describedby': problem ? said : undefined,
    'aria-required': input.required || undefined,
    className: `field-box ${problem ? 'border-2 border-ink' : ''}`,
    ...register(field.field),
  };
  return (
    <>
      {draw()}
      {problem && (
        <p id={said} role="alert" className="mt-1 font-medium">
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
                describedBy={problem ? said : undefined}
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
        return (
          <select {...common}>
            <option value=""></option>
            {input.type.options.map((option) => (
              <option key={option.id} value={option.id}>
                {option.name}
              </option>
            ))}
          </select>
        );
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
                describedBy={problem ? said : undefined}
              />
            )}
          />
        );
      }
    }
  }
}
