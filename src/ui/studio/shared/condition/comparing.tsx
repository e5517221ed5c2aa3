'use client';

import {
  type Condition,
  type Operand,
  type Operator,
  readConstant,
  typeOf,
  firstConstant,
  OPERATORS,
} from '@/core/condition';
import { ConstantBox, OperandPicker } from './operand-picker';
import type { Props } from './props';
import { waysToAsk } from './ways-to-ask';
import { Select } from '@/ui/parts/select';
import { Checkbox } from '@/ui/parts/checkbox';

export function Comparing({ scope, condition, onChange }: Pick<Props, 'scope' | 'condition' | 'onChange'>) {
  const empty =
    'empty' in condition
      ? condition
      : 'not' in condition && 'empty' in condition.not
        ? condition.not
        : undefined;
  const left: Operand | undefined =
    'compare' in condition
      ? condition.left
      : 'oneOf' in condition
        ? condition.oneOf
        : 'inUnit' in condition
          ? condition.inUnit
          : 'between' in condition
            ? condition.between
            : empty?.empty;
  const type = left && typeOf(scope, left);
  if (!left || !type) return <span className="text-quiet">Edit this comparison as text.</span>;
  const right: Operand =
    'compare' in condition
      ? condition.right
      : 'inUnit' in condition
        ? condition.unit
        : 'between' in condition
          ? condition.from
          : { value: firstConstant(scope.definition, type) };
  const ways = waysToAsk(scope, left, type, right);
  const way =
    'compare' in condition
      ? condition.compare
      : 'oneOf' in condition
        ? 'is one of'
        : 'inUnit' in condition
          ? 'in unit'
          : 'between' in condition
            ? 'is between'
            : 'not' in condition
              ? 'is not empty'
              : 'is empty';
  return (
    <>
      <Select
        aria-label="Comparison"
        className="w-auto"
        value={way}
        onChoose={(chosen) => {
          const next = ways.get(chosen);
          if (next) onChange(next);
        }}
        options={[...ways.keys()].map((one) => ({
          id: one,
          name: one in OPERATORS ? OPERATORS[one as Operator].words : one,
        }))}
      />
      {'compare' in condition && (
        <OperandPicker
          scope={scope}
          type={type}
          operand={condition.right}
          onChange={(next) => onChange({ ...condition, right: next })}
        />
      )}
      {'compare' in condition && type.kind === 'text' && (
        <Checkbox
          checked={condition.anyCase ?? false}
          onTurn={(on) => onChange(without(condition, 'anyCase', on ? true : undefined))}
        >
          ignore upper and lower case
        </Checkbox>
      )}
      {'between' in condition && (
        <>
          <OperandPicker
            scope={scope}
            type={type}
            operand={condition.from}
            onChange={(from) => onChange({ ...condition, from })}
          />
          <span className="text-quiet">and</span>
          <OperandPicker
            scope={scope}
            type={type}
            operand={condition.to}
            onChange={(to) => onChange({ ...condition, to })}
          />
        </>
      )}
      {'inUnit' in condition && (
        <OperandPicker
          scope={scope}
          type={type}
          operand={condition.unit}
          onChange={(next) => onChange({ ...condition, unit: next })}
        />
      )}
      {'oneOf' in condition && (
        <>
          {condition.values.map((value, n) => (
            <ConstantBox
              key={n}
              scope={scope}
              type={type}
              value={value}
              onChange={(next) =>
                readConstant(scope.definition, type, next) !== undefined &&
                onChange({ ...condition, values: condition.values.with(n, next) })
              }
            />
          ))}
          <button
            type="button"
            className="link"
            onClick={() =>
              onChange({ ...condition, values: [...condition.values, firstConstant(scope.definition, type)] })
            }
          >
            or
          </button>
        </>
      )}
    </>
  );
}

/** The condition with this part of it, or without it where it is undefined. */
export function without<C extends Condition, K extends keyof C>(
  condition: C,
  key: K,
  value: C[K] | undefined,
): C {
  const { [key]: _, ...others } = condition;
  return (value === undefined ? others : { ...others, [key]: value }) as C;
}
