'use client';

import { Fragment, type ReactNode } from 'react';
import { usePeopleWork } from './use-people-work';

interface HeadProps {
  readonly title: string;
  readonly about: string;
  /** What can be added, for who may change the draft. */
  readonly add?: { readonly name: string; readonly run: () => void };
  readonly children?: ReactNode;
}

/** A heading with what the part is for, and what can be done with all of it. */
export function PartHead({ title, about, add, children }: HeadProps) {
  const { mayChange } = usePeopleWork();
  return (
    <div className="mb-3 flex items-start gap-3">
      <div className="mr-auto">
        <h1 className="text-xl font-semibold">{title}</h1>
        <p className="max-w-prose text-quiet">{about}</p>
      </div>
      {children}
      {add && mayChange && (
        <button type="button" className="button" onClick={add.run}>
          {add.name}
        </button>
      )}
    </div>
  );
}

/** A part that lists things with names, each in a panel of its own. */
export function NamedList<T extends { readonly id: string }>({
  things,
  draw,
  ...head
}: HeadProps & { things: readonly T[]; draw: (thing: T) => ReactNode }) {
  return (
    <>
      <PartHead {...head} />
      <div className="grid gap-4">
        {things.map((one) => (
          <Fragment key={one.id}>{draw(one)}</Fragment>
        ))}
        {things.length === 0 && <p className="text-quiet">None yet.</p>}
      </div>
    </>
  );
}

export const Panel = ({ children, label }: { children: ReactNode; label?: string }) => (
  <section aria-label={label} className="border-t-2 border-ink bg-paper px-4 py-3">
    {children}
  </section>
);
