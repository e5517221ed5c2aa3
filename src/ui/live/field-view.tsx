'use client';

import { useId } from 'react';
import { Controller, useFormContext } from 'react-hook-form';
import type { ShownField } from '@/core/access';
import type { Value } from '@/core/model';
import { RecordPicker } from './record-picker';

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
        return <input type="date" {...common} />;
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
