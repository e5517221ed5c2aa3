'use client';

import { useContext, type Context } from 'react';

/** What a context holds; it is an error to ask outside of it. */
export function useNeeded<T>(context: Context<T | undefined>, what: string): T {
  const held = useContext(context);
  if (held === undefined) throw new Error(`${what} was used outside its provider`);
  return held;
}
