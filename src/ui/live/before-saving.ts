import { useLatest } from '../parts/use-latest';
import { useEffect, useState } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import type { ShownSection } from '@/core/access';
import type { Value } from '@/core/model';
import type { DrawnPart, DrawnScreen, DrawnSection } from './drawn';
import type { Host } from './host';

type FormValues = Record<string, Value>;

/** So long after the last key or click it is asked how the screen would be. */
const PAUSE_MS = 200;

/**
 * The screen as it would be with what is written in its form, before that is saved. When a value changes on which it
 * can depend, the server is asked; an answer that is overtaken is dropped. What was written stays, also where it
 * closes its own place: else it could not be taken back.
 */
export function useBeforeSaving(
  screen: DrawnScreen,
  address: string,
  version: string,
  form: UseFormReturn<FormValues>,
  host: Host,
): DrawnScreen {
  const [sections, setSections] = useState<{
    readonly over: string;
    readonly sections: readonly ShownSection[];
  }>();
  const over = `${address} ${version}`;
  const { beforeSaving } = host;
  const asks = useLatest(screen.asks ?? []);
  const face = screen.faces?.find((one) => one.shown)?.id;
  useEffect(() => {
    if (!beforeSaving) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let turn = 0;
    const watching = form.watch((all, { name }) => {
      if (name === undefined || !asks.current.includes(name)) return;
      clearTimeout(timer);
      const mine = ++turn;
      timer = setTimeout(() => {
        const { dirtyFields } = form.formState;
        const values = Object.fromEntries(
          Object.entries(all)
            .filter(([field]) => dirtyFields[field])
            .map(([field, value]) => [field, value === '' ? null : (value ?? null)]),
        );
        void beforeSaving({ address, values, ...(face !== undefined && { face }) }).then((answer) => {
          if (mine === turn && answer.ok) setSections({ over, sections: answer.value.sections });
        });
      }, PAUSE_MS);
    });
    return () => {
      turn = -1;
      clearTimeout(timer);
      watching.unsubscribe();
    };
  }, [beforeSaving, form, address, over, face, asks]);
  if (sections?.over !== over) return screen;
  return {
    ...screen,
    sections: merged(screen, sections.sections, (field) => form.getFieldState(field).isDirty),
  };
}

/** The sections as they would be, with the lists as they are drawn, and what is being written where it stood. */
function merged(
  screen: DrawnScreen,
  then: readonly ShownSection[],
  isDirty: (field: string) => boolean,
): DrawnSection[] {
  const drawn = new Map(screen.sections.flatMap(({ parts }) => parts).map((part) => [part.id, part]));
  const staying = (section: DrawnSection): DrawnPart[] =>
    section.parts.filter((part) => part.kind === 'field' && part.input !== undefined && isDirty(part.field));
  const made = then.map((section): DrawnSection => {
    const before = screen.sections.find((one) => one.id === section.id);
    const parts = section.parts.map((part): DrawnPart =>
      part.kind === 'list' ? (drawn.get(part.id) ?? part) : part,
    );
    const kept = (before ? staying(before) : []).filter((part) => !parts.some((one) => one.id === part.id));
    return { ...section, parts: [...kept, ...parts] };
  });
  const gone = screen.sections
    .filter((section) => !then.some((one) => one.id === section.id))
    .map((section): DrawnSection => ({ ...section, parts: staying(section) }))
    .filter(({ parts }) => parts.length > 0);
  return [...made, ...gone];
}
