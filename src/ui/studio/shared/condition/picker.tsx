'use client';

import { Trash2 } from 'lucide-react';
import {
  canBeBetween,
  canBeOneOf,
  type Condition,
  type Operand,
  type Operator,
  operatorsFor,
  readConstant,
  type Scope,
  type Type,
  typeOf,
} from '@/core/condition';
import { privilegesInLists } from '@/core/model';
import { firstConstant, questionsFor, type Question } from './questions';
import { OperandPicker, ValueInput } from './operand-picker';

interface Props {
  readonly scope: Scope;
  readonly condition: Condition;
  readonly onChange: (condition: Condition) => void;
  /** Absent at the top. */
  readonly onRemove?: () => void;
}

type Group = { readonly all: readonly Condition[] } | { readonly any: readonly Condition[] };

/** A condition to be put together by picking. It is the same tree as the text. */
export function Picker(props: Props) {
  const { condition, onChange } = props;
  if ('not' in condition && !('empty' in condition.not))
    return (
      <div className="flex items-start gap-2">
        <button
          type="button"
          className="button mt-0.5 px-2 py-0.5"
          title="Take the not away"
          onClick={() => onChange(condition.not)}
        >
          not
        </button>
        <div className="min-w-0 grow">
          <Picker {...props} condition={condition.not} onChange={(inner) => onChange({ not: inner })} />
        </div>
      </div>
    );
  if ('all' in condition || 'any' in condition) return <GroupPicker {...props} group={condition} />;
  return <RowPicker {...props} />;
}

function GroupPicker({ scope, group, onChange, onRemove }: Props & { group: Group }) {
  const isAll = 'all' in group;
  const parts = isAll ? group.all : group.any;
  const withParts = (next: readonly Condition[]): Group => (isAll ? { all: next } : { any: next });
  return (
    <div className="border-l-2 border-edge pl-3">
      <div className="mb-1 flex items-center gap-2">
        <select
          aria-label="How many must hold"
          className="field-box w-auto"
          value={isAll ? 'all' : 'any'}
          onChange={(event) => onChange(event.target.value === 'all' ? { all: parts } : { any: parts })}
        >
          <option value="all">All of these hold</option>
          <option value="any">Any of these holds</option>
        </select>
        <button type="button" className="link" onClick={() => onChange({ not: group })}>
          not
        </button>
        {onRemove && <RemoveButton onRemove={onRemove} what="group" />}
      </div>
      <div className="grid gap-1.5">
        {parts.map((part, n) => (
          <Picker
            key={n}
            scope={scope}
            condition={part}
            onChange={(next) => onChange(withParts(parts.with(n, next)))}
            onRemove={() => onChange(withParts(parts.toSpliced(n, 1)))}
          />
        ))}
      </div>
      <div className="mt-1.5 flex gap-3">
        <button
          type="button"
          className="link"
          onClick={() => onChange(withParts([...parts, firstQuestion(scope)]))}
        >
          Add a comparison
        </button>
        <button
          type="button"
          className="link"
          onClick={() =>
            onChange(
              withParts([
                ...parts,
                isAll ? { any: [firstQuestion(scope)] } : { all: [firstQuestion(scope)] },
              ]),
            )
          }
        >
          Add a group
        </button>
      </div>
    </div>
  );
}

/** What a new comparison asks first: the record's first field, else the viewer's email. */
export function firstQuestion(scope: Scope): Condition {
  const [first] = questionsFor(scope);
  return first ? first.start : { all: [] };
}

function RowPicker({ scope, condition, onChange, onRemove }: Props) {
  const questions = questionsFor(scope);
  const current = questions.find((one) => one.is(condition));
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <select
        aria-label="What is looked at"
        className="field-box w-auto max-w-[13rem]"
        value={current?.key ?? ''}
        onChange={(event) => {
          const next = questions.find((one) => one.key === event.target.value);
          if (next) onChange(next.start);
        }}
      >
        {!current && <option value="">Something else</option>}
        {groupsOf(questions).map(([heading, some]) => (
          <optgroup key={heading} label={heading}>
            {some.map((one) => (
              <option key={one.key} value={one.key}>
                {one.name}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
      <Asked scope={scope} condition={condition} onChange={onChange} />
      <button type="button" className="link" onClick={() => onChange({ not: condition })}>
        not
      </button>
      {onRemove && <RemoveButton onRemove={onRemove} what="comparison" />}
    </div>
  );
}

function groupsOf(questions: readonly Question[]): [string, Question[]][] {
  const headings = [...new Set(questions.map((one) => one.heading))];
  return headings.map((heading) => [heading, questions.filter((one) => one.heading === heading)]);
}

const RemoveButton = ({ onRemove, what }: { onRemove: () => void; what: string }) => (
  <button
    type="button"
    aria-label={`Take the ${what} away`}
    className="p-1 text-quiet hover:text-ink"
    onClick={onRemove}
  >
    <Trash2 size={14} aria-hidden />
  </button>
);

/** The rest of a row: the operator, and what it is compared with. */
function Asked({ scope, condition, onChange }: Pick<Props, 'scope' | 'condition' | 'onChange'>) {
  const { definition } = scope;
  if ('hasRole' in condition)
    return (
      <>
        <NameSelect
          label="Role"
          among={definition.roles}
          value={condition.hasRole}
          onChange={(hasRole) => onChange({ ...condition, hasRole })}
        />
        <HeldSelect condition={condition} onChange={onChange} />
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            className="accent-open"
            checked={condition.exactly ?? false}
            onChange={(event) =>
              onChange(without(condition, 'exactly', event.target.checked ? true : undefined))
            }
          />
          exactly
        </label>
      </>
    );
  if ('hasPrivilege' in condition)
    return (
      <>
        <NameSelect
          label="Privilege"
          among={privilegesInLists(definition)}
          value={condition.hasPrivilege}
          onChange={(hasPrivilege) => onChange({ ...condition, hasPrivilege })}
        />
        <HeldSelect condition={condition} onChange={onChange} />
      </>
    );
  if ('inGroup' in condition)
    return (
      <NameSelect
        label="Group"
        among={definition.groups}
        value={condition.inGroup}
        onChange={(inGroup) => onChange({ inGroup })}
      />
    );
  if ('meets' in condition)
    return (
      <NameSelect
        label="Named condition"
        among={definition.conditions.filter(
          (one) => one.entity === undefined || one.entity === scope.entity?.id,
        )}
        value={condition.meets}
        onChange={(meets) => onChange({ meets })}
      />
    );
  if ('call' in condition)
    return (
      <>
        {condition.with.map((one, n) => (
          <OperandPicker
            key={n}
            scope={scope}
            type={{ kind: 'date' }}
            operand={one}
            onChange={(next) => onChange({ ...condition, with: condition.with.with(n, next) })}
          />
        ))}
      </>
    );
  return <Comparing scope={scope} condition={condition} onChange={onChange} />;
}

/** How an operand of a type can be asked of, with the condition that it then is. */
function waysToAsk(scope: Scope, left: Operand, type: Type, right: Operand): Map<string, Condition> {
  const ways = new Map<string, Condition>();
  for (const compare of operatorsFor(type)) ways.set(compare, { compare, left, right });
  const first = 'value' in right ? right.value : firstConstant(scope, type);
  if (canBeBetween(type)) ways.set('is between', { between: left, from: right, to: right });
  if (canBeOneOf(type)) ways.set('is one of', { oneOf: left, values: [first] });
  if (type.kind === 'unit') ways.set('in unit', { inUnit: left, unit: right });
  if (!('clock' in left)) {
    ways.set('is empty', { empty: left });
    ways.set('is not empty', { not: { empty: left } });
  }
  return ways;
}

function Comparing({ scope, condition, onChange }: Pick<Props, 'scope' | 'condition' | 'onChange'>) {
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
function without<C extends Condition, K extends keyof C>(condition: C, key: K, value: C[K] | undefined): C {
  const { [key]: _, ...others } = condition;
  return (value === undefined ? others : { ...others, [key]: value }) as C;
}

/** Where a role or a privilege must be held. */
function HeldSelect<C extends Extract<Condition, { hasRole: string } | { hasPrivilege: string }>>({
  condition,
  onChange,
}: {
  condition: C;
  onChange: (condition: Condition) => void;
}) {
  return (
    <select
      aria-label="Where it is held"
      className="field-box w-auto"
      value={condition.held ?? ''}
      onChange={(event) =>
        onChange(without(condition, 'held', (event.target.value || undefined) as C['held']))
      }
    >
      <option value="">for the unit at hand</option>
      <option value="everywhere">everywhere</option>
      <option value="anywhere">in any unit</option>
    </select>
  );
}

function NameSelect({
  label,
  among,
  value,
  onChange,
}: {
  label: string;
  among: readonly { readonly id: string; readonly name: string }[];
  value: string;
  onChange: (id: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="field-box w-auto"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {!among.some((one) => one.id === value) && <option value={value}>One that is gone</option>}
      {among.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  );
}
