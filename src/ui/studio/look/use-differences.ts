'use client';

import { useEffect, useEffectEvent, useMemo } from 'react';
import { type Compiled, differences, differing, type LookPage, screensOfSome } from '@/core/access';
import { isTyping } from '../shell/is-typing';
import type { InspectedElement } from './context';

/** What differs between the panes, and stepping through it: by buttons, and by the keys n and Shift n. */
export function useDifferences(
  compiled: Compiled,
  pages: readonly (LookPage | undefined)[],
  asked: InspectedElement | undefined,
  onAsk: (asked: InspectedElement) => void,
) {
  // Nothing differs before all are there.
  const compared = useMemo(() => {
    const known = pages.filter((one) => one !== undefined);
    return known.length === pages.length && known.length > 1 ? known : [];
  }, [pages]);
  const found = useMemo(() => differences(compiled, compared), [compiled, compared]);
  const marks = useMemo(() => differing(found), [found]);
  const step = (by: 1 | -1): void => {
    if (found.length === 0) return;
    const at = found.findIndex(({ elements }) => elements.some((one) => one.id === asked?.element));
    const next = found[(at + by + found.length + (at < 0 && by < 0 ? 1 : 0)) % found.length];
    const element = next?.elements[0];
    // Why is asked of the pane that gets least: that is what one wonders about.
    const answers = next?.answers.map((one) => one?.most ?? 3) ?? [];
    if (element) onAsk({ element: element.id, pane: answers.indexOf(Math.min(...answers) as 0) });
  };
  const onKey = useEffectEvent((event: KeyboardEvent): void => {
    if (isTyping(event.target as HTMLElement) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key.toLowerCase() !== 'n') return;
    event.preventDefault();
    step(event.shiftKey ? -1 : 1);
  });
  useEffect(() => {
    // On the window: after a click on what takes no focus, the keys go to nothing in the bench.
    const listen = (event: KeyboardEvent): void => onKey(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  return {
    /** Undefined until every pane has its page: before that, nobody knows. */
    found: compared.length > 0 ? found : undefined,
    marks,
    someScreens: screensOfSome(compiled, compared),
    step,
  };
}
