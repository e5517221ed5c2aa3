'use client';

import { useSyncExternalStore } from 'react';

/** A small value by application, kept in the browser. */
export interface KeptValue<T> {
  readonly read: (slug: string) => T;
  readonly write: (slug: string, change: Partial<T>) => void;
  /** What is kept now; what is there at first while the page is made on the server. */
  readonly useValue: (slug: string) => T;
}

/**
 * Keeps a value by application in one of the browser's stores, as JSON. Where there is no store, or what is in it cannot
 * be read, it is as at first.
 * @param name what it is kept under, with the application's address
 */
export function keptValue<T extends object>(store: () => Storage, name: string, first: T): KeptValue<T> {
  const listeners = new Set<() => void>();
  const textOf = (slug: string): string => {
    try {
      return store().getItem(`${name} ${slug}`) ?? '{}';
    } catch {
      return '{}';
    }
  };
  const parsed = (text: string): T => {
    try {
      return { ...first, ...(JSON.parse(text) as Partial<T>) };
    } catch {
      return first;
    }
  };
  const listen = (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };
  return {
    read: (slug) => parsed(textOf(slug)),
    write: (slug, change) => {
      const next = JSON.stringify({ ...parsed(textOf(slug)), ...change });
      if (next === textOf(slug)) return;
      try {
        store().setItem(`${name} ${slug}`, next);
      } catch {
        return;
      }
      for (const listener of listeners) listener();
    },
    useValue: function useValue(slug) {
      return parsed(
        useSyncExternalStore(
          listen,
          () => textOf(slug),
          () => '{}',
        ),
      );
    },
  };
}
