'use client';

import { useId, useRef, useState, type KeyboardEvent } from 'react';
import { useSamples } from '../samples';
import { parse } from '@/core';
import { type Condition, type Offers, type Scope, suggest, type TextProblem } from '@/core/condition';

interface Props {
  readonly scope: Scope;
  readonly text: string;
  /** Where records to pick from are found. */
  readonly app: string;
  /** With the condition, where the text is one. */
  readonly onChange: (text: string, condition: Condition | undefined) => void;
}

const NO_OFFERS: Offers = { span: { from: 0, to: 0 }, offers: [] };

/** A condition as text: its fault is told at its place while it is written, and what could stand there is offered. */
export function TextForm({ scope, text, app, onChange }: Props) {
  const listId = useId();
  const area = useRef<HTMLTextAreaElement>(null);
  const [offers, setOffers] = useState<Offers>(NO_OFFERS);
  const [active, setActive] = useState(0);
  const problem = problemOf(scope, text);
  const shown = offers.offers.slice(0, 60);
  const open = shown.length > 0;

  const look = (next: string, cursor: number): void => {
    setOffers(suggest(scope, next, cursor));
    setActive(0);
  };
  const write = (next: string, cursor: number): void => {
    const parsed = parse(scope, next);
    onChange(next, parsed.ok ? parsed.value : undefined);
    look(next, cursor);
  };
  const take = (offer: string): void => {
    const { from, to } = offers.span;
    const rest = text.slice(to);
    const space = /[(.]$/.test(offer) || rest.startsWith(' ') ? '' : ' ';
    const next = text.slice(0, from) + offer + space + rest;
    const cursor = from + offer.length + space.length;
    write(next, cursor);
    requestAnimationFrame(() => {
      area.current?.focus();
      area.current?.setSelectionRange(cursor, cursor);
    });
  };
  const mend = ({ span: { from, to } }: TextProblem, written: string): void => {
    const before = text.slice(0, from);
    const space =
      from === text.length && before !== '' && !/[\s(.]$/.test(before) && /^\w/.test(written) ? ' ' : '';
    const next = before + space + written + text.slice(to);
    write(next, from + space.length + written.length);
    area.current?.focus();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!open) return;
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      setActive((now) => (now + (event.key === 'ArrowDown' ? 1 : shown.length - 1)) % shown.length);
    } else if (event.key === 'Enter' && shown[active]) {
      event.preventDefault();
      take(shown[active].text);
    } else if (event.key === 'Escape') {
      event.preventDefault();
      event.stopPropagation();
      setOffers(NO_OFFERS);
    }
  };
  return (
    <div>
      <textarea
        ref={area}
        rows={3}
        role="combobox"
        aria-label="Condition as text"
        aria-expanded={open}
        aria-controls={listId}
        aria-activedescendant={open ? `${listId}-${active}` : undefined}
        aria-invalid={problem && text.trim() !== '' ? true : undefined}
        spellCheck={false}
        className="field-box font-mono text-[13px]"
        placeholder='Example: record.status = "Out" and record.due_back < today'
        value={text}
        onChange={(event) => write(event.target.value, event.target.selectionStart)}
        onClick={(event) => look(text, event.currentTarget.selectionStart)}
        onFocus={(event) => look(text, event.currentTarget.selectionStart)}
        onKeyDown={onKeyDown}
      />
      {problem && text.trim() !== '' && (
        <Fault text={text} problem={problem} app={app}>
          {(written) => mend(problem, written)}
        </Fault>
      )}
      <ul
        id={listId}
        role="listbox"
        aria-label="Suggestions"
        // Always as high, so that nothing under it moves away from the pointer.
        className="mt-1 h-32 overflow-auto border border-rule"
      >
        {!open && <li className="px-2 py-0.5 text-quiet">Suggestions appear here as you type.</li>}
        {shown.map((offer, n) => (
          <li
            key={offer.text}
            id={`${listId}-${n}`}
            role="option"
            aria-selected={n === active}
            ref={(item) => {
              if (n === active && open) item?.scrollIntoView({ block: 'nearest' });
            }}
            className={`flex cursor-pointer justify-between gap-4 px-2 py-0.5 ${n === active ? 'bg-open-soft' : ''}`}
            onMouseDown={(event) => {
              event.preventDefault();
              take(offer.text);
            }}
          >
            <code className="font-mono text-[13px]">{offer.text}</code>
            <span className="truncate text-quiet">{offer.about}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function problemOf(scope: Scope, text: string): TextProblem | undefined {
  const parsed = parse(scope, text);
  return parsed.ok ? undefined : parsed.problem;
}

/**
 * The text once more, with the place of the fault marked, and under it what is wrong and how to mend it; where it is
 * known what to write there, a click writes it.
 */
function Fault({
  text,
  problem,
  app,
  children: onMend,
}: {
  text: string;
  problem: TextProblem;
  app: string;
  children: (written: string) => void;
}) {
  const { fix, pick } = problem;
  const { from, to } = problem.span;
  return (
    <div role="alert" className="mt-1 border-l-4 border-ink bg-sheet px-2 py-1">
      <p className="font-mono text-[13px] break-words whitespace-pre-wrap" aria-hidden>
        {text.slice(0, from)}
        <mark className="bg-transparent font-bold text-ink underline decoration-wavy decoration-2 underline-offset-4">
          {text.slice(from, to) || '␣'}
        </mark>
        {text.slice(to)}
      </p>
      <p className="mt-1">
        {problem.message}{' '}
        {fix === undefined ? (
          <span className="font-medium">{problem.mend}</span>
        ) : (
          <button type="button" className="link" onClick={() => onMend(fix)}>
            {problem.mend}
          </button>
        )}
      </p>
      {pick !== undefined && <Picks app={app} entity={pick} onPick={(id) => onMend(`#${id}`)} />}
    </div>
  );
}

/** Some records to pick one of. */
function Picks({ app, entity, onPick }: { app: string; entity: string; onPick: (id: string) => void }) {
  const samples = useSamples(app, entity).slice(0, 8);
  if (samples.length === 0) return null;
  return (
    <p className="mt-1 flex flex-wrap gap-x-3">
      {samples.map(({ id, label }) => (
        <button key={id} type="button" className="link" onClick={() => onPick(id)}>
          {label}
        </button>
      ))}
    </p>
  );
}
