'use client';

import { type Condition } from '@/core/condition';
import { firstQuestion, NotButton, RemoveButton, RowPicker } from './row-picker';
import { type Props } from './props';
import { Select } from '@/ui/parts/select';

type Group = { readonly all: readonly Condition[] } | { readonly any: readonly Condition[] };

/** A condition to be put together by picking. It is the same tree as the text. */
export function Picker(props: Props) {
  const { condition, onChange } = props;
  if ('not' in condition && !('empty' in condition.not))
    return (
      <div className="flex items-start gap-2">
        <NotButton pressed onPress={() => onChange(condition.not)} />
        <div className="min-w-0 grow">
          <Picker {...props} condition={condition.not} onChange={(inner) => onChange({ not: inner })} />
        </div>
      </div>
    );
  if ('all' in condition || 'any' in condition) return <GroupPicker {...props} group={condition} />;
  return <RowPicker {...props} />;
}

const GROUPS = [
  { id: 'all', name: 'All of these are true' },
  { id: 'any', name: 'At least one of these is true' },
] as const;

function GroupPicker({ scope, group, onChange, onRemove }: Props & { group: Group }) {
  const isAll = 'all' in group;
  const parts = isAll ? group.all : group.any;
  const withParts = (next: readonly Condition[]): Group => (isAll ? { all: next } : { any: next });
  return (
    <div role="group" aria-label={GROUPS[isAll ? 0 : 1].name} className="border-l-2 border-edge pl-3">
      <div className="mb-1 flex items-center gap-2">
        <Select
          aria-label="Match all or any"
          className="w-auto"
          value={isAll ? 'all' : 'any'}
          onChoose={(chosen) => onChange(chosen === 'all' ? { all: parts } : { any: parts })}
          options={GROUPS}
        />
        <NotButton pressed={false} onPress={() => onChange({ not: group })} />
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
          Add comparison
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
          Add group
        </button>
      </div>
    </div>
  );
}
