'use client';

import { comparable, type Operand, type Scope, type Type, typeOf, firstConstant } from '@/core/condition';
import { sameJson, type Value } from '@/core/model';
import { operandsOfScope } from './questions';
import { ValueBox } from '@/ui/parts/value-box';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly scope: Scope;
  readonly type: Type;
  readonly operand: Operand;
  readonly onChange: (operand: Operand) => void;
}

/** What something is compared with: a constant of its type, or something else that is of that type. */
export function OperandPicker({ scope, type, operand, onChange }: Props) {
  const others = operandsOfScope(scope).filter((one) => {
    const own = typeOf(scope, one.operand);
    return own && comparable(own, type);
  });
  const plain = 'clock' in operand ? { clock: operand.clock } : operand;
  const key =
    'value' in operand
      ? 'value'
      : JSON.stringify(others.find((one) => sameJson(one.operand, plain))?.operand);
  return (
    <>
      <Select
        aria-label="Compared with"
        className="w-auto max-w-[17rem]"
        value={key}
        onChoose={(chosen) =>
          onChange(
            chosen === 'value'
              ? { value: firstConstant(scope.definition, type) }
              : (JSON.parse(chosen) as Operand),
          )
        }
        options={[
          { id: 'value', name: 'a fixed value:' },
          ...others.map((one) => ({ id: JSON.stringify(one.operand), name: `${one.heading}: ${one.name}` })),
        ]}
      />
      {'value' in operand && (
        <ConstantBox
          scope={scope}
          type={type}
          value={operand.value}
          onChange={(value) => onChange({ value })}
        />
      )}
      {'clock' in operand && operand.clock === 'today' && (
        <label className="flex items-center gap-1">
          plus
          <input
            type="number"
            aria-label="Number of days to add"
            className="field-box w-20"
            value={operand.plus ?? 0}
            onChange={(event) => {
              const plus = Math.trunc(Number(event.target.value));
              onChange(plus === 0 ? { clock: 'today' } : { clock: 'today', plus });
            }}
          />
          days
        </label>
      )}
    </>
  );
}

/** Writes a constant of a type. */
export const ConstantBox = ({
  scope,
  type,
  value,
  onChange,
}: {
  scope: Scope;
  type: Type;
  value: Value;
  onChange: (value: Value) => void;
}) => (
  <ValueBox
    label="Value"
    className="w-40"
    manner={scope.definition}
    type={type}
    value={value}
    onChange={(next) => onChange(next ?? '')}
  />
);
