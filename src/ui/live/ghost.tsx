import type { ReactNode } from 'react';
import type { GhostOf } from './drawn';

/** How a ghost looks: one that some of the viewers get is of its own sort. */
export const ghostClass = (ghost: GhostOf): string => (ghost === 'some' ? 'ghost ghost-some' : 'ghost');

/** What a ghost says of itself, to screen readers and on hover. */
export const ghostWords = (name: string, ghost: GhostOf): string =>
  `${name}: ${ghost === 'some' ? 'only for some of these people' : 'hidden from this viewer'}`;

/** The place of something that the viewer does not get. */
export function Ghost({
  id,
  name,
  ghost,
  className,
  children = name,
}: {
  /** Where it stands for itself; in a place that is marked already it has none. */
  id?: string;
  name: string;
  ghost: GhostOf;
  className: string;
  children?: ReactNode;
}) {
  return (
    <div
      data-element={id}
      role="img"
      aria-label={ghostWords(name, ghost)}
      title={ghostWords(name, ghost)}
      className={`${ghostClass(ghost)} ${className}`}
    >
      {children}
      {ghost === 'some' && <span className="ml-1 text-[12px] italic">only for some of these people</span>}
    </div>
  );
}
