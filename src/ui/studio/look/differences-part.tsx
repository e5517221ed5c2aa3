'use client';

import { useEffect, useRef } from 'react';
import type { Answer, Difference } from '@/core/access';
import { answerInWords, kindInWords, counted } from '@/core/edit';
import type { ElementKind } from '@/core/model';
import { LevelMark } from '../shared/level-mark';
import type { InspectedElement } from './context';
import { letterOf } from './look-rail';

interface Props {
  /** Undefined while it is not known. */
  readonly found: readonly Difference[] | undefined;
  readonly panes: number;
  readonly asked: InspectedElement | undefined;
  readonly onAsk: (asked: InspectedElement) => void;
  readonly onStep: (by: 1 | -1) => void;
}

/** Differences that are known. */
type Listed = Omit<Props, 'onStep' | 'found'> & { readonly found: readonly Difference[] };

/** What differs between the panes on the screen that they show, with each one's level. */
export function DifferencesPart({ found, panes, asked, onAsk, onStep }: Props) {
  return (
    <section aria-label="Differences" className="mb-4">
      <div className="mb-1 flex items-baseline gap-2">
        <h2 className="mr-auto text-lg leading-tight font-semibold">
          {!found
            ? 'Differences on this screen'
            : found.length === 0
              ? 'No differences on this screen'
              : `${counted(found.length, 'difference')} on this screen`}
        </h2>
        {found && found.length > 1 && (
          <>
            <button
              type="button"
              className="link"
              onClick={() => onStep(-1)}
              title="Previous difference (Shift+N)"
            >
              Previous
            </button>
            <button type="button" className="link" onClick={() => onStep(1)} title="Next difference (N)">
              Next
            </button>
          </>
        )}
      </div>
      {!found && <p className="text-quiet">They appear once every pane has loaded.</p>}
      {found && found.length > 0 && (
        <DifferenceTable found={found} panes={panes} asked={asked} onAsk={onAsk} heading="Element" />
      )}
    </section>
  );
}

/** The screens that open in some of the panes only; each can be gone to. */
export function SomeScreens({ found, ...props }: Listed) {
  if (found.length === 0) return null;
  return (
    <details className="mb-4">
      <summary className="min-h-[24px] font-semibold">
        {counted(found.length, 'screen opens', 'screens open')} for some viewers only
      </summary>
      <DifferenceTable found={found} heading="Screen" {...props} />
    </details>
  );
}

/** Differences row by row; each level can be asked about. */
function DifferenceTable({ found, panes, asked, onAsk, heading }: Listed & { heading: string }) {
  const table = useRef<HTMLTableElement>(null);
  useEffect(() => {
    table.current?.querySelector('.is-here')?.scrollIntoView({ block: 'nearest' });
  }, [asked]);
  return (
    <table ref={table} aria-label="Differences" className="w-full text-left text-[13px]">
      <thead>
        <tr className="border-b border-rule text-quiet">
          <th className="py-1 font-medium">{heading}</th>
          {Array.from({ length: panes }, (_, n) => (
            <th key={n} className={`${panes > 2 ? 'w-[26px]' : 'w-[54px]'} py-1 pl-1 font-medium`}>
              {letterOf(n)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {found.map(({ elements, answers }) => {
          const [first] = elements;
          if (!first) return null;
          const here = elements.some((one) => one.id === asked?.element);
          return (
            <tr key={first.id} className={`border-b border-sheet ${here ? 'is-here bg-open-soft' : ''}`}>
              <th scope="row" className="py-0.5 pr-1 font-normal">
                {elements.map((one) => one.name).join(', ')}
                {first.kind === 'menu-item' && <span className="text-quiet">, in menu</span>}
                {(first.kind === 'column' || first.kind === 'list') && (
                  <span className="text-quiet">, {kindInWords(first.kind).toLowerCase()}</span>
                )}
              </th>
              {answers.map((answer, pane) => (
                <td key={pane} className="py-0.5 pl-1">
                  {answer && (
                    <button
                      type="button"
                      className="flex min-h-[24px] min-w-[24px] items-center gap-1 text-[12px] hover:underline"
                      aria-label={`Why ${letterOf(pane)} has ${answerInWords(first.kind, answer)}: ${first.name}`}
                      title={`${letterOf(pane)}: ${answerInWords(first.kind, answer)}`}
                      aria-pressed={here && asked?.pane === pane}
                      onClick={() => onAsk({ element: first.id, pane })}
                    >
                      <Level answer={answer} kind={first.kind} short={panes > 2} />
                    </button>
                  )}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** A level by its mark and word; among many panes the word is in the button's label, and on hovering. */
function Level({ answer, kind, short }: { answer: Answer; kind: ElementKind; short: boolean }) {
  const word = answerInWords(kind, answer);
  return (
    <>
      <LevelMark answer={answer} />
      {!short && <span className="truncate">{word}</span>}
    </>
  );
}
