'use client';

import { type Condition, type Operand, type Operator, readConstant, typeOf } from '@/core/condition';
import { firstConstant } from './questions';
import { OperandPicker, ValueInput } from './operand-picker';
import type { Props } from './props';
import { waysToAsk } from './ways-to-ask';

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
  if (!left || !type) return <span className="text-quiet">Only the text form can change this.</span>;
  const right: Operand =
    'compare' in condition
      ? condition.right
      : 'inUnit' in condition
        ? condition.unit
        : 'between' in condition
          ? condition.from
          : { value: firstConstant(scope, type) };
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
      <select
        aria-label="How it is compared"
        className="field-box w-auto"
        value={way}
        onChange={(event) => {
          const next = ways.get(event.target.value);
          if (next) onChange(next);
        }}
      >
        {[...ways.keys()].map((one) => (
          <option key={one} value={one}>
            {WORDS[one as Operator] ?? one}
          </option>
        ))}
      </select>
      {'compare' in condition && (
        <OperandPicker
          scope={scope}
          type={type}
          operand={condition.right}
          onChange={(next) => onChange({ ...condition, right: next })}
        />
      )}
      {'compare' in condition && type.kind === 'text' && (
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            className="accent-open"
            checked={condition.anyCase ?? false}
            onChange={(event) =>
              onChange(without(condition, 'anyCase', event.target.checked ? true : undefined))
            }
          />
          in any case
        </label>
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
            <ValueInput
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
              onChange({ ...condition, values: [...condition.values, firstConstant(scope, type)] })
            }
          >
            or
          </button>
        </>
      )}
    </>
  );
}

const WORDS: Readonly<Partial<Record<Operator, string>>> = {
  '=': 'is',
  '!=': 'is not',
  '<': 'is less than, before',
  '<=': 'is at most',
  '>': 'is more than, after',
  '>=': 'is at least',
};

/** The condition with this part of it, or without it where it is undefined. */
export function without<C extends Condition, K extends keyof C>(
  condition: C,
  key: K,
  value: C[K] | undefined,
): C {
  const { [key]: _, ...others } = condition;
  return (value === undefined ? others : { ...others, [key]: value }) as C;
}
