'use client';

import { ChevronDown, ChevronRight } from 'lucide-react';
import { answerInWords, kindInWords } from '@/core/edit';
import { useBench } from './bench';
import { ReachStrip } from '../shared/level-mark';
import { type OutlineRow, ROW } from './outline-rows';

/** So many viewers' cells leave room for names. */
const STRIP = 14;

/** The viewers whose cells the strips have: all, or as many as fit around the one who is looked as. */
export function stripOf(all: number, at: number): [from: number, until: number] {
  if (all <= STRIP) return [0, all];
  const from = Math.max(0, Math.min(all - STRIP, at - Math.floor(STRIP / 2)));
  return [from, from + STRIP];
}

export function Row({ row, onFold }: { row: OutlineRow; onFold: (id: string, folded: boolean) => void }) {
  const {
    compiled,
    viewers: all,
    viewer: looking,
    accessFor,
    amongOf,
    selected,
    select,
    definition,
  } = useBench();
  const viewers = all.slice(...stripOf(all.length, all.indexOf(looking)));
  const { element, depth, folded, hasContents } = row;
  const answers = viewers.map((viewer) => accessFor(viewer).answer(element));
  const reach = viewers
    .map((viewer, n) => `${viewer.name}: ${answerInWords(element.kind, answers[n] ?? { least: 0, most: 0 })}`)
    .join(', ');
  const isSelected = element.id === selected.id;
  const own = compiled.lines(element.id) !== undefined && element.id !== definition.id;
  const Chevron = folded ? ChevronRight : ChevronDown;
  return (
    <div
      id={`outline-${element.id}`}
      role="treeitem"
      aria-level={depth + 1}
      aria-posinset={row.place}
      aria-setsize={row.among}
      aria-selected={isSelected}
      aria-expanded={hasContents ? !folded : undefined}
      title={`${kindInWords(element.kind)}. ${reach}`}
      onMouseEnter={(event) => {
        // How many people that is in each is worked out only where somebody looks.
        const said = viewers.map((viewer, n) => {
          const among = amongOf(viewer, element);
          const word = answerInWords(element.kind, answers[n] ?? { least: 0, most: 0 });
          return `${viewer.name}: ${word}${among ? ` (${among})` : ''}`;
        });
        event.currentTarget.title = `${kindInWords(element.kind)}. ${said.join(', ')}`;
      }}
      onClick={() => select(element.id)}
      className={`flex cursor-pointer items-center gap-1 border-l-4 pr-3 ${isSelected ? 'border-open bg-open-soft' : 'border-transparent hover:bg-sheet'}`}
      style={{ height: ROW, paddingLeft: 4 + depth * 12 }}
    >
      <span
        className="flex w-4 justify-center"
        onClick={(event) => {
          if (!hasContents) return;
          event.stopPropagation();
          onFold(element.id, !folded);
        }}
      >
        {hasContents && <Chevron size={13} aria-hidden className="text-quiet" />}
      </span>
      <span className={`min-w-0 flex-1 truncate ${depth === 0 ? 'font-medium' : ''}`}>
        {element.name}
        {own && (
          <span className="ml-1 text-quiet" title="Has its own lines">
            ·
          </span>
        )}
      </span>
      <ReachStrip answers={answers} label={reach} />
    </div>
  );
}
