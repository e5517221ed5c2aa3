'use client';

import { useEffect, type KeyboardEvent } from 'react';
import type { Level } from '@/core/access';
import { isTyping } from '../shell/is-typing';
import type { Bench } from './bench';

/**
 * Left and right walk the rail's viewers where the canvas or the rail has the focus, and 0, 1, 2 set the level of the
 * one looked as, where a bench can. What it gives back hears the keys of a bench.
 *
 * @param fromStart do they work before anything has the focus?
 */
export function useViewerKeys(
  { viewers, viewer, look, mayChange }: Bench,
  fromStart: boolean,
  set?: (level: Level) => void,
): (event: KeyboardEvent) => void {
  const onKeyDown = (event: KeyboardEvent | globalThis.KeyboardEvent): void => {
    const from = event.target as HTMLElement;
    if (isTyping(from) || event.ctrlKey || event.metaKey || event.altKey) return;
    const walking = from === document.body || from.closest('[aria-label="Canvas"], [aria-label="Viewers"]');
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step !== 0 && walking) {
      event.preventDefault();
      const next = viewers[Math.max(0, Math.min(viewers.length - 1, viewers.indexOf(viewer) + step))];
      if (next) look(next.key);
    }
    if (set && ['0', '1', '2'].includes(event.key) && mayChange) {
      event.preventDefault();
      set(Number(event.key) as Level);
    }
  };
  // The keys that the rail names work from the start, before anything has the focus.
  useEffect(() => {
    const onPage = (event: globalThis.KeyboardEvent): void => {
      if (event.target === document.body && fromStart) onKeyDown(event);
    };
    window.addEventListener('keydown', onPage);
    return () => window.removeEventListener('keydown', onPage);
  });
  return onKeyDown;
}
