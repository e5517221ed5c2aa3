'use client';

import { useLayoutEffect, useRef, type RefObject } from 'react';

/** The newest value of each drawing, for what is called later and must itself stay the same. */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}
