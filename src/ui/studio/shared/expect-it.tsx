'use client';

import { useEffect, useEffectEvent, useState } from 'react';
import { isTyping } from '../shell/is-typing';
import { ExpectWindow, type ToExpect } from './expect-window';

/** Keeps the answer that is shown as what is expected: by its button, or the key E. */
export function ExpectIt({ name, of }: { name: string; of: ToExpect }) {
  const [open, setOpen] = useState(false);
  const onKey = useEffectEvent((event: KeyboardEvent): void => {
    if (event.key.toLowerCase() !== 'e' || event.ctrlKey || event.metaKey || event.altKey) return;
    if (isTyping(event.target as HTMLElement) || document.querySelector('[role=dialog]')) return;
    event.preventDefault();
    setOpen(true);
  });
  useEffect(() => {
    const hear = (event: KeyboardEvent): void => onKey(event);
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, []);
  return (
    <>
      <button
        type="button"
        className="button mt-2"
        title="Every later change is checked against this (E)"
        onClick={() => setOpen(true)}
      >
        Add expectation…
      </button>
      {open && <ExpectWindow name={name} of={[of]} onClose={() => setOpen(false)} />}
    </>
  );
}
