'use client';

import { useState } from 'react';
import { print, whatIsWrong } from '@/core';
import type { Condition, Scope } from '@/core/condition';
import { useAsked, useSettled } from '@/ui/client/queries';
import { type Count, tryCondition } from '@/contract/studio/draft';
import { Window } from '@/ui/parts/window';
import { Picker } from './picker';
import { firstQuestion } from './row-picker';
import { TextForm } from './text-form';

interface Props {
  readonly title: string;
  /** `/studio/api/applications/<app>` */
  readonly app: string;
  readonly scope: Scope;
  readonly condition: Condition | undefined;
  readonly onUse: (condition: Condition) => void;
  readonly onRemove?: (() => void) | undefined;
  readonly onClose: () => void;
}

/** One question by itself, rather than as all, or any, of one. */
function plain(condition: Condition): Condition {
  const parts = 'all' in condition ? condition.all : 'any' in condition ? condition.any : [];
  return parts.length === 1 ? (parts[0] as Condition) : condition;
}

/** Writes a condition, by picking and as text at once, and shows for whom and on what it is true now. */
export function ConditionWindow({ title, app, scope, condition: first, onUse, onRemove, onClose }: Props) {
  const [condition, setCondition] = useState<Condition>(() => first ?? { all: [firstQuestion(scope)] });
  const [text, setText] = useState(() => (first ? print(scope, first) : ''));
  const [sound, setSound] = useState(first !== undefined);
  const picked = (next: Condition): void => {
    setCondition(next);
    setText(print(scope, plain(next)));
    setSound(whatIsWrong(scope, next) === undefined);
  };
  return (
    <Window
      wide
      open
      onOpenChange={(open) => !open && onClose()}
      title={title}
      close="Cancel"
      footer={
        <>
          <button
            type="button"
            className="button button-main"
            disabled={!sound}
            onClick={() => {
              onUse(plain(condition));
              onClose();
            }}
          >
            Apply
          </button>
          {onRemove && (
            <button
              type="button"
              className="button"
              onClick={() => {
                onRemove();
                onClose();
              }}
            >
              Remove condition
            </button>
          )}
        </>
      }
    >
      <h3 className="mb-1 font-semibold">Builder</h3>
      <div>
        {!sound && text !== '' && (
          <p className="mb-1 text-quiet">
            This shows the last valid version. The text is not yet a complete condition.
          </p>
        )}
        <Picker scope={scope} condition={condition} onChange={picked} />
        {!('all' in condition) && !('any' in condition) && (
          <button
            type="button"
            className="link mt-1.5"
            onClick={() => picked({ all: [condition, firstQuestion(scope)] })}
          >
            Add another comparison
          </button>
        )}
      </div>
      <h3 className="mt-4 mb-1 font-semibold">As text</h3>
      <TextForm
        scope={scope}
        app={app}
        text={text}
        onChange={(next, made) => {
          setText(next);
          setSound(made !== undefined);
          if (made) setCondition(made);
        }}
      />
      <TryIt app={app} scope={scope} condition={sound ? condition : undefined} />
    </Window>
  );
}

const EXAMPLES = 5;

function TryIt({ app, scope, condition }: { app: string; scope: Scope; condition: Condition | undefined }) {
  const entity = scope.entity;
  const written = useSettled(condition, 250);
  const { data: tried, error } = useAsked(
    tryCondition,
    written && { app, body: { condition: written, entity: entity?.id } },
    { keepsLast: true },
  );
  const say = ({ hits, of, examples }: Count, what: string): string =>
    `${hits} of ${of} ${what}${examples.length > 0 ? `: ${examples.slice(0, EXAMPLES).join(', ')}${hits > EXAMPLES ? ' …' : ''}` : ''}`;
  return (
    <div className="mt-4 min-h-[4.5rem] border-l-4 border-lead bg-plate px-3 py-2" aria-live="polite">
      <h3 className="font-semibold">Currently true for</h3>
      {condition === undefined ? (
        <p className="text-quiet">
          Matching people and records are shown here when the condition is complete.
        </p>
      ) : error ? (
        <p>{error.message}</p>
      ) : (
        tried && (
          <>
            <p>{tried.people.of === 0 ? 'There are no people yet.' : `For ${say(tried.people, 'people')}`}</p>
            {tried.records && (
              <p>
                {tried.people.of === 0 ? 'For someone who may join, on ' : 'On '}
                {say(tried.records, `sample ${entity?.plural.toLowerCase() ?? 'records'}`)}
              </p>
            )}
          </>
        )
      )}
    </div>
  );
}
