'use client';

import { useEffect } from 'react';
import { removalOf } from '@/core/edit';
import { useConfirm } from '../../parts/asking';
import { useTell } from '../../parts/toasts';
import { useBench } from '../frame/bench';
import { isTyping } from '../shell/is-typing';

const MOST_TOLD = 12;

/** Takes the selected element away, having said what goes with it. */
export function RemoveButton() {
  const { definition, selected, select, apply } = useBench();
  const confirm = useConfirm();
  const tell = useTell();
  const remove = async (): Promise<void> => {
    const found = removalOf(definition, selected.id);
    if (!found.ok) {
      const [problem] = found.problems;
      return tell(`${problem?.message ?? ''} ${problem?.mend ?? ''}`);
    }
    const { edit, also } = found.value;
    const inside = selected.contents.length;
    const text = (
      <>
        {inside > 0 && <p>Everything in it is deleted too.</p>}
        {also.slice(0, MOST_TOLD).map(({ about, says }, n) => (
          <p key={n}>
            <strong className="font-semibold">{about}</strong> {says}
          </p>
        ))}
        {also.length > MOST_TOLD && <p>And {also.length - MOST_TOLD} more.</p>}
        <p className="text-quiet">You can undo this.</p>
      </>
    );
    if (!(await confirm({ title: `Delete ${selected.name}?`, text, go: 'Delete' }))) return;
    apply(edit);
    if (selected.container) select(selected.container.id);
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const { ctrlKey, metaKey, altKey, shiftKey } = event;
      if (event.key !== 'Delete' || ctrlKey || metaKey || altKey || shiftKey) return;
      if (isTyping(event.target as HTMLElement) || document.querySelector('[role=alertdialog]')) return;
      event.preventDefault();
      void remove();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  return (
    <button type="button" className="button" title="Delete" onClick={() => void remove()}>
      Delete…
    </button>
  );
}
