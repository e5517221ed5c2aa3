'use client';

import { Trash2 } from 'lucide-react';
import { type Condition, type Scope } from '@/core/condition';
import { questionsFor, type Question } from './questions';
import { Asked } from './asked';
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

export const RemoveButton = ({ onRemove, what }: { onRemove: () => void; what: string }) => (
  <button
    type="button"
    aria-label={`Take the ${what} away`}
    className="p-1 text-quiet hover:text-ink"
    onClick={onRemove}
  >
    <Trash2 size={14} aria-hidden />
  </button>
);
