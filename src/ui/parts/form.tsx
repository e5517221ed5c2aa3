'use client';

import { useEffect, useRef, useSyncExternalStore, type ComponentProps } from 'react';

const NEVER = (): (() => void) => () => undefined;

/**
 * A form that takes nothing before the page's scripts are there: what would be written by then would be lost, and
 * sending it would put what is in it, a password too, into the address.
 */
export function Form({ children, ...form }: ComponentProps<'form'>) {
  const works = useSyncExternalStore(
    NEVER,
    () => true,
    () => false,
  );
  const fields = useRef<HTMLFieldSetElement>(null);
  // What was closed until now could not take the focus that was meant for it.
  useEffect(() => {
    if (works && document.activeElement === document.body)
      fields.current?.querySelector<HTMLElement>('[autofocus]')?.focus();
  }, [works]);
  return (
    <form noValidate {...form}>
      <fieldset ref={fields} disabled={!works} className="contents">
        {children}
      </fieldset>
    </form>
  );
}
