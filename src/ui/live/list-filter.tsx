'use client';

import { ListFilter as FilterIcon } from 'lucide-react';
import { useState } from 'react';
import type { FilterField, ShownRows } from '@/core/access';
import { quoted } from '@/core/condition';

interface Row {
  readonly path: string;
  readonly operator: string;
  readonly value: string;
}

const OPERATORS: Readonly<Record<string, readonly (readonly [string, string])[]>> = {
  text: [
    ['contains', 'contains'],
    ['=', 'is'],
    ['starts with', 'starts with'],
    ['ends with', 'ends with'],
  ],
  number: [
    ['=', 'is'],
    ['>=', 'at least'],
    ['<=', 'at most'],
  ],
  date: [
    ['=', 'is'],
    ['>=', 'from'],
    ['<=', 'until'],
  ],
  boolean: [['=', 'is']],
  choice: [
    ['=', 'is'],
    ['!=', 'is not'],
  ],
};
const EMPTY = [
  ['is empty', 'is empty'],
  ['is not empty', 'is not empty'],
] as const;

const operatorsOf = (field: FilterField | undefined): readonly (readonly [string, string])[] => {
  const kind = field?.type.kind ?? 'text';
  return [...(OPERATORS[kind === 'money' ? 'number' : kind] ?? OPERATORS['text'] ?? []), ...EMPTY];
};

/** One row as conditions are written. */
function asText({ path, operator, value }: Row, field: FilterField | undefined): string {
  if (operator.startsWith('is ')) return `${path} ${operator}`;
  const kind = field?.type.kind;
  const bare = kind === 'number' || kind === 'money' || kind === 'date' || kind === 'boolean';
  const name =
    field?.type.kind === 'choice' ? field.type.options.find((one) => one.id === value)?.name : undefined;
  return `${path} ${operator} ${bare ? value.trim() || '0' : quoted(name ?? value)}`;
}

/** Narrows a list by any field that the viewer may see: picked, or written as conditions are. */
export function ListFilter({ rows, onFilter }: { rows: ShownRows; onFilter: (filter: string) => void }) {
  const [open, setOpen] = useState(false);
  const first = rows.filters[0];
  const [picked, setPicked] = useState<Row>({
    path: first?.path ?? '',
    operator: operatorsOf(first)[0]?.[0] ?? '=',
    value: '',
  });
  const field = rows.filters.find((one) => one.path === picked.path);
  const add = (): void => onFilter([rows.filter, asText(picked, field)].filter(Boolean).join(' and '));
  if (rows.filters.length === 0) return null;
  return (
    <>
      <button type="button" className="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        <FilterIcon size={14} aria-hidden />
        Filter
      </button>
      {(open || rows.filter || rows.problem) && (
        <div className="flex basis-full flex-wrap items-center gap-2 border-t border-sheet pt-2">
          {open && (
            <>
              <select
                aria-label="Field"
                className="field-box w-auto"
                value={picked.path}
                onChange={(event) => {
                  const next = rows.filters.find((one) => one.path === event.target.value);
                  setPicked({
                    path: event.target.value,
                    operator: operatorsOf(next)[0]?.[0] ?? '=',
                    value: '',
                  });
                }}
              >
                {rows.filters.map((one) => (
                  <option key={one.path} value={one.path}>
                    {one.label}
                  </option>
                ))}
              </select>
              <select
                aria-label="How"
                className="field-box w-auto"
                value={picked.operator}
                onChange={(event) => setPicked({ ...picked, operator: event.target.value })}
              >
                {operatorsOf(field).map(([operator, words]) => (
                  <option key={operator} value={operator}>
                    {words}
                  </option>
                ))}
              </select>
              {!picked.operator.startsWith('is ') && (
                <FilterValue
                  field={field}
                  value={picked.value}
                  onChange={(value) => setPicked({ ...picked, value })}
                />
              )}
              <button type="button" className="button" onClick={add}>
                Add
              </button>
            </>
          )}
          {rows.filter && (
            <span className="flex min-w-0 items-center gap-2">
              <code className="truncate font-mono text-[13px]" title={rows.filter}>
                {rows.filter}
              </code>
              <button type="button" className="link" onClick={() => onFilter('')}>
                Clear
              </button>
            </span>
          )}
          {rows.problem && (
            <p role="alert" className="basis-full border-l-4 border-ink bg-sheet px-3 py-1">
              {rows.problem}
            </p>
          )}
        </div>
      )}
    </>
  );
}

function FilterValue({
  field,
  value,
  onChange,
}: {
  field: FilterField | undefined;
  value: string;
  onChange: (value: string) => void;
}) {
  const options =
    field?.type.kind === 'choice'
      ? field.type.options
      : field?.type.kind === 'boolean'
        ? [
            { id: 'true', name: 'Yes' },
            { id: 'false', name: 'No' },
          ]
        : undefined;
  if (options)
    return (
      <select
        aria-label="Value"
        className="field-box w-auto"
        value={value || options[0]?.id}
        ref={(select) => {
          if (select && value === '' && options[0]) onChange(options[0].id);
        }}
        onChange={(event) => onChange(event.target.value)}
      >
        {options.map((option) => (
          <option key={option.id} value={option.id}>
            {option.name}
          </option>
        ))}
      </select>
    );
  return (
    <input
      aria-label="Value"
      type={field?.type.kind === 'date' ? 'date' : 'text'}
      className="field-box w-36"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
