'use client';

import { useEffect, useState } from 'react';
import { sameJson, type AppElement } from '@/core/model';
import { measureLayout, type CanvasLayout } from './canvas-layout';

const NOTHING: CanvasLayout = { seams: [], movables: [] };

/** Where what is drawn can be added to and moved: read anew whenever it is drawn or laid out another way. */
export function useCanvasLayout(
  content: HTMLElement,
  screen: AppElement | undefined,
  drawn: unknown,
): CanvasLayout {
  const [lay, setLay] = useState(NOTHING);
  useEffect(() => {
    if (!screen) return;
    let asked = 0;
    const read = (): void => {
      cancelAnimationFrame(asked);
      asked = requestAnimationFrame(() => {
        const next = measureLayout(content, screen);
        setLay((now) => (sameLay(now, next) ? now : next));
      });
    };
    read();
    const resized = new ResizeObserver(read);
    resized.observe(content);
    // Parts that come later, such as rows, move what is below them.
    const changed = new MutationObserver((all) => {
      if (all.some(({ target }) => !(target as Element).closest?.('[data-shaping]'))) read();
    });
    changed.observe(content, { childList: true, subtree: true });
    return () => {
      cancelAnimationFrame(asked);
      resized.disconnect();
      changed.disconnect();
    };
  }, [content, screen, drawn]);
  return screen ? lay : NOTHING;
}

const sameLay = (a: CanvasLayout, b: CanvasLayout): boolean =>
  sameJson(a.seams, b.seams) &&
  a.movables.length === b.movables.length &&
  a.movables.every(({ element, box }, n) => {
    const other = b.movables[n];
    return element === other?.element && sameJson(box, other.box);
  });
