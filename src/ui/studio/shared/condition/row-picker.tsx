'use client';

import { Trash2 } from 'lucide-react';
import { type Condition, type Scope } from '@/core/condition';
import { Select } from '@/ui/parts/select';
import { questionsFor } from './questions';
import { ConditionDetails } from './asked';
import type { Props } from './props';

/** What a new comparison asks first: the record's first field, else the viewer's email. */
export function firstQuestion(scope: Scope): Condition {
  const [first] = questionsFor(scope);
  return first ? first.start : { all: [] };
}

export function RowPicker({ scope, condition, onChange, onRemove }: Props) {
  const questions = questionsFor(scope);
  const current = questions.find((one) => one.is(condition));
  return (
    <div
      role="group"
      aria-label={current?.name ?? 'Comparison'}
      className="flex flex-wrap items-center gap-1.5"
    >
      <Select
        aria-label="Value to check"
        className="w-auto max-w-[13rem]"
        value={current?.key ?? ''}
        onChoose={(chosen) => {
          const next = questions.find((one) => one.key === chosen);
          if (next) onChange(next.start);
        }}
        none={current ? undefined : 'Choose a value'}
        options={questions.map(({ key, ...one }) => ({ id: key, ...one }))}
      />
      <ConditionDetails scope={scope} condition={condition} onChange={onChange} />
      <NotButton pressed={false} onPress={() => onChange({ not: condition })} />
      {onRemove && <RemoveButton onRemove={onRemove} what="comparison" />}
    </div>
  );
}

/** Turns what it stands at into its opposite, and back. */
export const NotButton = ({ pressed, onPress }: { pressed: boolean; onPress: () => void }) => (
  <button
    type="button"
    aria-pressed={pressed}
    className={pressed ? 'button mt-0.5 px-2 py-0.5' : 'link'}
    title={pressed ? 'Remove “not”' : 'Reverse this'}
    onClick={onPress}
  >
    not
  </button>
);

export const RemoveButton = ({ onRemove, what }: { onRemove: () => void; what: string }) => (
  <button
    type="button"
    aria-label={`Remove the ${what}`}
    className="p-1 text-quiet hover:text-ink"
    onClick={onRemove}
  >
    <Trash2 size={14} aria-hidden />
  </button>
);
