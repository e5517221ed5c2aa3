'use client';

import { useEffect, useRef } from 'react';
import { takeAdded } from './just-added';
import { useStateFor } from './use-state-for';

/** A text that is kept when its field is left, or with Enter. An empty one is not kept unless `mayBeEmpty`. */
export function KeptText({
  label,
  value,
  disabled,
  onKeep,
  mayBeEmpty = false,
  placeholder,
  className = '',
}: {
  label: string;
  value: string;
  disabled: boolean;
  onKeep: (value: string) => void;
  mayBeEmpty?: boolean;
  placeholder?: string;
  className?: string;
}) {
  const [written, setWritten] = useStateFor(value, value);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    // What was just added is named first.
    if (!takeAdded()) return;
    input.current?.focus();
    input.current?.select();
  }, []);
  const keep = (): void => {
    const next = written.trim();
    if (next === value) return;
    if (next === '' && !mayBeEmpty) return setWritten(value);
    onKeep(next);
  };
  return (
    <input
      ref={input}
      aria-label={label}
      data-as-kept={written === value}
      className={`field-box ${className}`}
      disabled={disabled}
      placeholder={placeholder}
      value={written}
      onChange={(event) => setWritten(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}
