'use client';

import { useEffect } from 'react';

/** The places of a bench between which F6 goes, in their order in the page. */
const regions = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('[data-region]')];

const regionOf = (element: Element | null): HTMLElement | null => element?.closest('[data-region]') ?? null;

/** Puts the keyboard into a region: on what is chosen there, else on the region itself. */
export function enterRegion(name: string): void {
  const region = document.querySelector<HTMLElement>(`[data-region="${name}"]`);
  const inside =
    region?.querySelector<HTMLElement>('[data-enter]') ??
    region?.querySelector<HTMLElement>('[role="radio"][aria-checked="true"]');
  (inside ?? region)?.focus();
}

/**
 * The keys between a bench's places: F6 and Shift F6 go round, F8 goes to the viewers. And focus never falls to the
 * page: when what had it is gone, it goes to the place where that stood.
 */
export function useRegions(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key !== 'F6' && event.key !== 'F8') return;
      if (document.querySelector('[role=dialog], [role=alertdialog]')) return;
      event.preventDefault();
      if (event.key === 'F8') return enterRegion('viewers');
      const all = regions();
      const at = all.indexOf(regionOf(document.activeElement) as HTMLElement);
      const by = event.shiftKey ? -1 : 1;
      const next = all[(at + by + all.length + (at < 0 && by < 0 ? 1 : 0)) % all.length];
      enterRegion(next?.dataset['region'] ?? '');
    };
    let last: Element | null = null;
    let place: HTMLElement | null = null;
    const onFocus = (event: FocusEvent): void => {
      last = event.target as Element;
      place = regionOf(last);
    };
    const watch = new MutationObserver(() => {
      if (last && !last.isConnected && document.activeElement === document.body && place?.isConnected) {
        last = null;
        place.focus();
      }
    });
    window.addEventListener('keydown', onKey);
    document.addEventListener('focusin', onFocus);
    watch.observe(document.body, { childList: true, subtree: true });
    return () => {
      window.removeEventListener('keydown', onKey);
      document.removeEventListener('focusin', onFocus);
      watch.disconnect();
    };
  }, []);
}
