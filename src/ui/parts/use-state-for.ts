'use client';

import { useState } from 'react';

/** A state that begins anew, with `first`, whenever what it is for changes. */
export function useStateFor<T>(what: unknown, first: T): [T, (next: T) => void] {
  const [held, setHeld] = useState({ what, now: first });
  const now = held.what === what ? held : { what, now: first };
  if (now !== held) setHeld(now);
  return [now.now, (next) => setHeld({ what, now: next })];
}
