import { useRef } from 'react';

interface Place {
  readonly element: HTMLElement | null;
  /** Where the keyboard goes if that is gone: what was deleted by a window's own button. */
  readonly region: HTMLElement | null;
}

/** What a window was opened from: of an item of a menu, which goes with the menu, the button that opened that. */
function placeOf(focused: Element | null): Place {
  const menu = focused?.closest('[role=menu]');
  const element = menu ? document.getElementById(menu.getAttribute('aria-labelledby') ?? '') : focused;
  return {
    element: element instanceof HTMLElement ? element : null,
    region: element?.closest<HTMLElement>('[data-region], main') ?? null,
  };
}

/**
 * For the content of a window: what had the focus when it opened gets it back when it closes, whether or not it is the
 * window's own trigger.
 */
export function useReturnFocus() {
  const from = useRef<Place>(undefined);
  return {
    onOpenAutoFocus: (): void => {
      from.current = placeOf(document.activeElement);
    },
    onCloseAutoFocus: (event: Event): void => {
      event.preventDefault();
      const { element, region } = from.current ?? {};
      if (element?.isConnected) element.focus();
      else region?.focus();
    },
  };
}
