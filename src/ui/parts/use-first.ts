'use client';

import { useEffect, useState } from 'react';

/**
 * Which of a list's choices is on: the first whenever the choices are others, so that Enter takes what is shown
 * on top, also where it came from the server after the words were written.
 */
export function useFirst(keys: readonly string[]): {
  readonly value: string;
  readonly onValueChange: (value: string) => void;
} {
  const [value, onValueChange] = useState('');
  const all = keys.join('\n');
  useEffect(() => onValueChange(all.split('\n')[0] ?? ''), [all]);
  return { value, onValueChange };
}
