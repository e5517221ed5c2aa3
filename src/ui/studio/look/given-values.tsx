'use client';

import { momentOf, readClock, type Type } from '@/core/condition';
import { type Definition, type Value, type Values } from '@/core/model';
import { OnlyDays } from '../../parts/day-box';
import { ValueBox } from '@/ui/parts/value-box';

export type CustomViewerValues = Readonly<Record<string, Value | null>>;

export const known = (given: CustomViewerValues): Values =>
  Object.fromEntries(Object.entries(given).filter(([, value]) => value !== null));

export function GivenValues({
  legend,
  definition,
  declared,
  given,
  onChange,
}: {
  legend: string;
  definition: Definition;
  declared: readonly { readonly id: string; readonly name: string; readonly type: Type }[];
  given: CustomViewerValues;
  onChange: (given: CustomViewerValues) => void;
}) {
  if (declared.length === 0) return null;
  return (
    <fieldset className="grid min-w-0 grid-cols-2 gap-2">
      <legend className="font-semibold">{legend}</legend>
      {declared.map(({ id, name, type }) => (
        <label key={id}>
          <span className="text-quiet">{name}</span>
          <ValueBox
            manner={definition}
            none="not set"
            type={type}
            value={given[id] ?? null}
            onChange={(value) => onChange({ ...given, [id]: value })}
          />
        </label>
      ))}
    </fieldset>
  );
}

/** A day, which begins at midnight in the application's time zone. */
export function Day({
  label,
  language,
  timeZone,
  value,
  onChange,
}: {
  label: string;
  language: string;
  timeZone: string;
  value: string | undefined;
  onChange: (value: string | undefined) => void;
}) {
  return (
    <div className="flex min-w-0 items-center gap-1.5 text-quiet">
      {label}
      <OnlyDays
        aria-label={label}
        language={language}
        value={value === undefined ? '' : readClock(Date.parse(value), timeZone).today}
        onDay={(day) =>
          onChange(day ? new Date(momentOf(`${day}T00:00`, timeZone)).toISOString() : undefined)
        }
      />
    </div>
  );
}
