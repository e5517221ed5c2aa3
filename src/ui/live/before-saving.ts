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
 * can depend, the server is asked; an answer that is overtaken, also by the screen being another one, is dropped. What
 * was written stays, also where it closes its own place: else it could not be taken back.
 */
export function useBeforeSaving(
  screen: DrawnScreen,
  address: string,
  form: UseFormReturn<FormValues>,
  host: Host,
): DrawnScreen {
  const [then, setThen] = useState<{
    readonly of: DrawnScreen;
    readonly sections: readonly ShownSection[];
  }>();
  const { beforeSaving } = host;
  useEffect(() => {
    if (!beforeSaving) return;
    const asks = screen.asks ?? [];
    const face = screen.faces?.find((one) => one.shown)?.id;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let turn = 0;
    const ask = (): void => {
      clearTimeout(timer);
      const mine = ++turn;
      timer = setTimeout(() => {
        const { dirtyFields } = form.formState;
        const written = Object.entries(form.getValues()).filter(([field]) => dirtyFields[field]);
        if (!written.some(([field]) => asks.includes(field))) return setThen(undefined);
        const values = Object.fromEntries(
          written.map(([field, value]) => [field, value === '' ? null : (value ?? null)]),
        );
        void beforeSaving({ address, values, ...(face !== undefined && { face }) }).then((answer) => {
          if (mine === turn && answer.ok) setThen({ of: screen, sections: answer.value.sections });
        });
      }, PAUSE_MS);
    };
    // The screen has come again, while something is written in it.
    if (asks.some((field) => form.formState.dirtyFields[field])) ask();
    const watching = form.watch((_, { name }) => {
      if (name !== undefined && asks.includes(name)) ask();
    });
    return () => {
      turn = -1;
      clearTimeout(timer);
      watching.unsubscribe();
    };
  }, [beforeSaving, form, screen, address]);
  if (then?.of !== screen) return screen;
  return {
    ...screen,
    sections: merged(screen, then.sections, (field) => form.getFieldState(field).isDirty),
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
