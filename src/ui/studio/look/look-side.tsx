'use client';

import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import { Toggle } from '../shared/toggle';
import { MOST_PANES } from './use-panes';

interface Props {
  /** How many there are. */
  readonly panes: number;
  readonly onAdd: () => void;
  readonly ghosts: boolean;
  readonly onGhosts: (on: boolean) => void;
  readonly onlyAsk: boolean;
  readonly onOnlyAsk: (on: boolean) => void;
  /** What was found in the panes. */
  readonly findings: ReactNode;
  /** Why a viewer has what was asked about; nothing, while nothing is asked. */
  readonly why: ReactNode;
}

/** The side of the look bench: what the panes are like, what was found in them, and why. */
export function LookSide({ panes, onAdd, ghosts, onGhosts, onlyAsk, onOnlyAsk, findings, why }: Props) {
  return (
    <aside
      data-region="why"
      tabIndex={-1}
      aria-label="Differences and reasons"
      className="flex min-h-0 flex-col border-l border-rule bg-paper py-3"
    >
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1 px-4">
        <button
          type="button"
          className="button"
          disabled={panes >= MOST_PANES}
          title={panes >= MOST_PANES ? 'You can open at most four panes' : 'Compare with another viewer'}
          onClick={onAdd}
        >
          <Plus size={14} aria-hidden /> Pane
        </button>
        <Toggle
          label="Show hidden"
          hint="Show hidden elements as dashed outlines"
          on={ghosts}
          onChange={onGhosts}
        />
        <Toggle
          label="Inspect"
          hint="Clicks explain access instead of using the application"
          on={onlyAsk}
          onChange={onOnlyAsk}
        />
      </div>
      {/* Each scrolls by itself: one steps through the list while reading why. */}
      <div className={`overflow-y-auto px-4 ${why ? 'max-h-[40%] shrink-0' : 'min-h-0'}`}>{findings}</div>
      <div className="min-h-0 flex-1 overflow-y-auto px-4">
        {why ?? (
          <p className="text-quiet">
            Click anything in a pane, including dashed outlines, or move to it with Tab, to see why this
            viewer does or does not have access.
          </p>
        )}
      </div>
    </aside>
  );
}
