'use client';

import { AlertDialog } from 'radix-ui';
import { useCallback, useRef, useState, type ReactNode } from 'react';
import type { Level } from '@/core/access/level';
import { viewerOfPerson, type Viewer } from '@/core/access/viewer';
import type { Edit } from '@/core/edit/edit';
import { proposeLevel } from '@/core/edit/propose';
import { startLines } from '@/core/edit/start';
import { levelInWords } from '@/core/edit/words';
import type { Bench } from './bench';

interface Asked {
  readonly edit: Edit;
  readonly title: string;
  readonly others: readonly string[];
}

/**
 * Sets the level of the selected element for the viewer, with the fewest lines. Where others would change
 * too, it says first who.
 */
export function useSetLevel(
  bench: Bench,
  tell: (message: string) => void,
): { set: (level: Level) => void; dialog: ReactNode } {
  const [asked, setAsked] = useState<Asked>();
  const before = useRef<Element | null>(null);
  const set = useCallback(
    (level: Level): void => {
      const { definition, selected, target, viewer, viewers, people, apply, accessOf, circumstances } = bench;
      const word = levelInWords(selected.kind, level);
      const now = accessOf(viewer).answer(selected);
      if (now.least === level && now.most === level) return tell(`${viewer.name} has “${word}” already.`);
      const held = viewer.group === 'role' ? viewer.key.slice('role:'.length) : undefined;
      const others: { key: string; viewer: Viewer }[] = [
        ...viewers
          .filter((one) => one.group !== 'person')
          .map((one) => ({ key: one.name, viewer: one.viewer })),
        ...people
          .filter(
            (one) =>
              one.active &&
              `person:${one.id}` !== viewer.key &&
              !(held && one.assignments.some(({ role }) => role === held)),
          )
          .map((one) => ({ key: one.name, viewer: viewerOfPerson(one) })),
      ];
      const start = startLines(definition, target.id, people.map(viewerOfPerson), circumstances);
      const proposal = proposeLevel(
        definition,
        selected.id,
        target.id,
        { key: viewer.name, viewer: viewer.viewer },
        level,
        others,
        start,
        circumstances,
      );
      if (!proposal)
        return tell(
          `No line at ${target.name} can give ${viewer.name} “${word}”: something around it is narrower. See why, at the right.`,
        );
      if (proposal.others.length === 0) return apply(proposal.edit);
      before.current = document.activeElement;
      setAsked({
        edit: proposal.edit,
        title: `${selected.name}: “${word}” for ${viewer.name}`,
        others: proposal.others,
      });
    },
    [bench, tell],
  );
  const dialog = (
    <AlertDialog.Root open={asked !== undefined} onOpenChange={(open) => !open && setAsked(undefined)}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <AlertDialog.Content
          onCloseAutoFocus={(event) => {
            // There is no button that opened it: back to where the key was pressed.
            event.preventDefault();
            if (before.current instanceof HTMLElement) before.current.focus();
          }}
          className="fixed top-1/2 left-1/2 z-50 w-[28rem] -translate-x-1/2 -translate-y-1/2 border-t-4 border-ink bg-paper p-5 shadow-xl"
        >
          <AlertDialog.Title className="text-lg font-semibold">{asked?.title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mt-2">
              <p>This changes others too:</p>
              <p className="mt-1 max-h-48 overflow-y-auto">{asked?.others.join(', ')}</p>
            </div>
          </AlertDialog.Description>
          <div className="mt-4 flex justify-end gap-2">
            <AlertDialog.Cancel className="button">Leave it</AlertDialog.Cancel>
            <AlertDialog.Action
              className="button button-main"
              onClick={() => asked && bench.apply(asked.edit)}
            >
              Change them all
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
  return { set, dialog };
}
