'use client';

import { useState } from 'react';
import type { FilterField } from '@/core/access';
import { constantInWords, firstConstant, operatorsFor, OPERATORS } from '@/core/condition';
import type { Value } from '@/core/model';
import { Select } from '@/ui/parts/select';
import { ValueBox } from '@/ui/parts/value-box';
import { useHost } from './host';

interface Row {
  readonly path: string;
  readonly operator: string;
  readonly value: Value;
}

const EMPTY = ['is empty', 'is not empty'];

/** No names are needed to write what a filter compares with: units are sent as choices, records as texts. */
const NO_NAMES = { units: [], entities: [] };

/** Something of a field to begin with: of a text whether it contains words, of others whether they are the same. */
function startOf(field: FilterField | undefined): Row {
  const type = field?.type ?? { kind: 'text' };
  return {
    path: field?.path ?? '',
    operator: type.kind === 'text' ? 'contains' : '=',
    value: firstConstant(NO_NAMES, type),
  };
}

/** One row as conditions are written. */
const asText = ({ path, operator, value }: Row, field: FilterField): string =>
  EMPTY.includes(operator)
    ? `${path} ${operator}`
    : `${path} ${operator} ${constantInWords(NO_NAMES, value, field.type)}`;

interface Props {
  readonly fields: readonly FilterField[];
  /** Told a comparison, as conditions are written. */
  readonly onAdd: (filter: string) => void;
}

/** Puts together one comparison of a filter. */
export function FilterForm({ fields, onAdd }: Props) {
  const { language } = useHost();
  const [picked, setPicked] = useState(() => startOf(fields[0]));
  const field = fields.find((one) => one.path === picked.path);
  if (!field) return null;
  return (
    <>
      <Select
        aria-label="Field"
        className="w-auto"
        value={picked.path}
        onChoose={(chosen) => setPicked(startOf(fields.find(({ path }) => path === chosen)))}
        options={fields.map((one) => ({ id: one.path, name: one.label }))}
      />
      <Select
        aria-label="Comparison"
        className="w-auto"
        value={picked.operator}
        onChoose={(chosen) => setPicked({ ...picked, operator: chosen })}
        options={[
          ...operatorsFor(field.type).map((id) => ({ id, name: OPERATORS[id].words })),
          ...EMPTY.map((id) => ({ id, name: id })),
        ]}
      />
      {!EMPTY.includes(picked.operator) && (
        <ValueBox
          label="Value"
          className="w-40"
          type={field.type}
          manner={{ language, units: [] }}
          value={picked.value}
          onChange={(value) => setPicked({ ...picked, value: value ?? '' })}
        />
      )}
      <button type="button" className="button" onClick={() => onAdd(asText(picked, field))}>
        Add
      </button>
    </>
  );
}
