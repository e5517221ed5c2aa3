'use client';

import type { ComponentProps } from 'react';

interface FieldProps extends ComponentProps<'input'> {
  readonly label: string;
  /** What is wrong with what is written. */
  readonly problem?: string | undefined;
}

/** A field of a form with its name over it, and what is wrong with it below. */
export function TextField({ label, problem, ...input }: FieldProps) {
  return (
    <label>
      <span className="text-quiet">{label}</span>
      <input className="field-box" aria-invalid={problem ? true : undefined} {...input} />
      {problem && (
        <span role="alert" className="mt-1 block font-medium">
          {problem}
        </span>
      )}
    </label>
  );
}

/** What is said of a form as a whole; nothing, while there is nothing to say. */
export function FieldMessage({ text }: { text: string }) {
  if (!text) return null;
  return (
    <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
      {text}
    </p>
  );
}
