'use client';

import { Refused } from '@/ui/live/refusals';

/** A closed screen, for somebody who is signed in. It says nothing of the screen. */
export default function Forbidden() {
  return <Refused />;
}
