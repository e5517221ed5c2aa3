'use client';

import { accessOf, compile, proposeLevel, viewerOfPerson } from '@/core';
import { type Assignment, idInKey, type Level, type Viewer } from '@/core/access';
import { answerInWords, type Edit, levelInWords, startLines } from '@/core/edit';
import type { Definition } from '@/core/model';
import { AlertDialog } from 'radix-ui';
import { useCallback, useRef, useState, type ReactNode } from 'react';
import type { Bench } from './bench';

interface Asked {
  readonly edit: Edit;
  readonly title: string;
  /** Who else would have what: by what they would have. */
  readonly others: readonly (readonly [word: string, names: readonly string[]])[];
}

const isJust = (given: Assignment | undefined, role: string): boolean =>
  given?.role === role && !given.unit && !given.from && !given.until;

/** Those who would change, by what they would have then. */
function whatTheyHave(
  { selected, circumstances }: Bench,
  after: Definition,
  among: readonly { readonly key: string; readonly viewer: Viewer }[],
  changing: readonly string[],
): Asked['others'] {
  const then = new Map<string, string[]>();
  for (const { key, viewer } of among) {
    if (!changing.includes(key)) continue;
    const access = accessOf(compile(after), viewer, circumstances);
    const word = answerInWords(selected.kind, access.answer(access.element(selected.id)));
    then.set(word, [...(then.get(word) ?? []), key]);
  }
  return [...then];
}

/**
 * Sets the level of the selected element for the viewer, with the fewest lines. Where others would change
 * too, it says first who, and to what: those as well who hold a role among others.
 */
export function useSetLevel(
  bench: Bench,
  tell: (message: string) => void,
): { set: (level: Level) => void; dialog: ReactNode } {
  const [asked, setAsked] = useState<Asked>();
  const before = useRef<Element | null>(null);
  const set = useCallback(
    (level: Level): void => {
      const { definition, selected, target, viewer, viewers, people, apply, accessFor, circumstances } =
        bench;
      const word = levelInWords(selected.kind, level);
      const now = accessFor(viewer).answer(selected);
      if (now.least === level && now.most === level) return tell(`${viewer.name} has “${word}” already.`);
      const held = idInKey('role', viewer.key);
      const others: { key: string; viewer: Viewer }[] = [
        ...viewers
          .filter((one) => one.group !== 'person')
          .map((one) => ({ key: one.name, viewer: one.viewer })),
        ...people
          .filter(
            (one) =>
              one.active &&
              one.id !== idInKey('person', viewer.key) &&
              // Who holds just this role, everywhere and for good, is whom it is about.
              !(held && one.assignments.length === 1 && isJust(one.assignments[0], held)),
          )
          .map((one) => ({ key: one.name, viewer: viewerOfPerson(one) })),
      ];
      const start = startLines(definition, target.id);
      const proposal = proposeLevel(definition, {
        element: selected.id,
        gate: target.id,
        viewer: { key: viewer.name, viewer: viewer.viewer },
        level,
        others,
        start,
        at: circumstances,
      });
      if (!proposal)
        return tell(
          `No line at ${target.name} can give ${viewer.name} “${word}”: something around it is narrower. See why, at the right.`,
        );
      if (proposal.others.length === 0) return apply(proposal.edit);
      before.current = document.activeElement;
      setAsked({
        edit: proposal.edit,
        title: `${selected.name}: “${word}” for ${viewer.name}`,
        others: whatTheyHave(bench, proposal.definition, others, proposal.others),
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
              <dl className="mt-1 grid max-h-48 grid-cols-[auto_1fr] gap-x-3 overflow-y-auto">
                {asked?.others.map(([word, names]) => (
                  <div key={word} className="contents">
                    <dt className="font-semibold">{word}</dt>
                    <dd>{names.join(', ')}</dd>
                  </div>
                ))}
              </dl>
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
