import type { ReactNode } from 'react';

/** A setting with its name over it. */
export const Labelled = ({ label, children }: { label: string; children: ReactNode }) => (
  <label className="mb-2 block">
    <span className="text-quiet">{label}</span>
    {children}
  </label>
);
