'use client';

import { useStateFor } from './use-state-for';

/**
 * Which of a list's choices is on: the first whenever the choices are others, so that Enter takes what is shown
 * on top, also where it came from the server after the words were written.
 */
export function useFirst(keys: readonly string[]): {
  readonly value: string;
  readonly onValueChange: (value: string) => void;
} {
  const [value, onValueChange] = useStateFor(keys.join('\n'), keys[0] ?? '');
  return { value, onValueChange };
}
