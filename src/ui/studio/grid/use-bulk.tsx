'use client';

import { useRef, useState, type ReactNode } from 'react';
import { proposeRange } from '@/core';
import type { Level } from '@/core/access';
import type { Edit } from '@/core/edit';
import type { AppElement } from '@/core/model';

import { counted } from '@/core/edit';
import { useTell } from '../../parts/toasts';
import { useBench, type RailViewer } from '../frame/bench';
import { EffectDialog } from './effect-dialog';

/** Work in steps of so many milliseconds, so that the page stays alive between them. */
const STEP_MS = 40;

/**
 * What is done to a range of cells, of these elements and viewers, at once; other columns change as little as can be. Before more than one element is changed, it says how many people gain
 * and lose; all of it is one edit, and one undo.
 */
export function useBulk(
  elements: readonly AppElement[],
  viewers: readonly RailViewer[],
  columns: readonly RailViewer[],
): { set: (level: Level) => void; follow: () => void; dialog: ReactNode } {
  const { definition, compiled, circumstances, mayChange } = useBench();
  const tell = useTell();
  const [asked, setAsked] = useState<{
    readonly edit: Edit;
    readonly title: string;
    readonly left: number;
  }>();
  const [progress, setProgress] = useState<{ readonly done: number; readonly of: number }>();
  const stopped = useRef(false);

  const set = async (level: Level): Promise<void> => {
    if (!mayChange || progress) return;
    const affected = ({ key, viewer }: RailViewer) => ({ key, viewer });
    const steps = proposeRange(definition, {
      elements: elements.map(({ id }) => id),
      viewers: viewers.map(affected),
      level,
      others: columns.filter((one) => !viewers.includes(one)).map(affected),
      at: circumstances,
    });
    let since = performance.now();
    stopped.current = false;
    let step = steps.next();
    for (; !step.done; step = steps.next()) {
      if (performance.now() - since > STEP_MS) {
        setProgress({ done: step.value, of: elements.length * viewers.length });
        await new Promise((resolve) => setTimeout(resolve));
        since = performance.now();
      }
      if (stopped.current) return setProgress(undefined);
    }
    setProgress(undefined);
    const { edits, left } = step.value;
    if (edits.length === 0)
      return tell(
        'Nothing was changed. These cells already have that level, or their container or door gives less.',
      );
    setAsked({
      edit: { do: 'together', edits },
      title: `${counted(elements.length, 'element')} for ${viewers.map((one) => one.name).join(', ')}`,
      left,
    });
  };
  const follow = (): void => {
    const edits = elements.flatMap((element): Edit[] => {
      const lines = compiled.lines(element.id);
      return lines && element.container ? [{ do: 'follow', gate: element.id, lines }] : [];
    });
    if (edits.length === 0)
      return tell('Nothing was changed. These elements already follow their container.');
    setAsked({
      edit: { do: 'together', edits },
      title: `${counted(edits.length, 'element now follows', 'elements now follow')} again`,
      left: 0,
    });
  };
  const dialog = (
    <>
      {progress && (
        <div
          role="status"
          className="fixed bottom-6 left-6 z-40 flex items-center gap-3 border-l-4 border-open-bright bg-lead px-4 py-2 text-white"
        >
          Calculating cell {progress.done} of {progress.of}…
          <button type="button" className="button" onClick={() => (stopped.current = true)}>
            Stop
          </button>
        </div>
      )}
      {asked && (
        <EffectDialog
          title={asked.title}
          edit={asked.edit}
          note={
            asked.left > 0
              ? `${asked.left} cells were not changed, because their container or door gives less than that level.`
              : ''
          }
          onClose={() => setAsked(undefined)}
        />
      )}
    </>
  );
  return { set: (level) => void set(level), follow, dialog };
}
