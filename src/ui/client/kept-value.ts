'use client';

import { useSyncExternalStore } from 'react';

/**
 * A small value by application, kept in one of the browser's stores as JSON. Where there is no store, or what is in it
 * cannot be read, it is as at first.
 */
export class KeptValue<T extends object> {
  private readonly listeners = new Set<() => void>();

  /** @param name what it is kept under, with the application's address */
  constructor(
    private readonly store: () => Storage,
    private readonly name: string,
    private readonly first: T,
  ) {}

  read = (slug: string): T => this.parsed(this.text(slug));

  write(slug: string, change: Partial<T>): void {
    const next = JSON.stringify({ ...this.read(slug), ...change });
    if (next === this.text(slug)) return;
    try {
      this.store().setItem(`${this.name} ${slug}`, next);
    } catch {
      return;
    }
    for (const listener of this.listeners) listener();
  }

  /** What is kept now; what is there at first while the page is made on the server. */
  use(slug: string): T {
    const text = useSyncExternalStore(
      (listener) => {
        this.listeners.add(listener);
        return () => this.listeners.delete(listener);
      },
      () => this.text(slug),
      () => '{}',
    );
    return this.parsed(text);
  }

  private text(slug: string): string {
    try {
      return this.store().getItem(`${this.name} ${slug}`) ?? '{}';
    } catch {
      return '{}';
    }
  }

  private parsed(text: string): T {
    try {
      return { ...this.first, ...(JSON.parse(text) as Partial<T>) };
    } catch {
      return this.first;
    }
  }
}
