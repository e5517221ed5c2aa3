'use client';

import { Check, X } from 'lucide-react';
import Link from 'next/link';
import { useSelectedLayoutSegment } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import { peoplePage } from '@/contract/studio/people';
import { proofCounts } from '@/contract/studio/proving';
import { keptValue } from '@/ui/client/kept-value';
import { useAsked } from '@/ui/client/queries';
import { type BenchState, benchHref, useCarried } from './bench-state';
import { useDraft, useStudio } from './studio-work';
import { stepsOf } from './first-steps';

/** What somebody has seen of an application, and whether they closed its steps: in their browser. */
const PROGRESS = keptValue<{ readonly seen: readonly string[]; readonly closed: boolean }>(
  () => window.localStorage,
  'zinc-getting-started',
  { seen: [], closed: false },
);

/** Shows the steps again to who has closed them. */
export const showSteps = (app: string): void => PROGRESS.write(app, { closed: false });

/** The steps that are left until the first release, each with the way to its place; ticked as they are done. */
export function GettingStarted() {
  const { app, isNew } = useStudio();
  const { closed } = PROGRESS.useValue(app);
  return closed || !isNew ? null : <Steps app={app} />;
}

function Steps({ app }: { app: string }) {
  const { definition } = useDraft();
  const bench = useSelectedLayoutSegment();
  const carried = useCarried(app);
  const { seen } = PROGRESS.useValue(app);
  const { data: counts } = useAsked(proofCounts, { app }, { keepsLast: true });
  const { data } = useAsked(
    peoplePage,
    { app, query: { size: 1 } },
    { version: bench ?? '', keepsLast: true },
  );
  const now = seenAt(bench, carried).join(' ');
  useEffect(() => {
    const before = PROGRESS.read(app).seen;
    PROGRESS.write(app, { seen: [...new Set([...before, ...now.split(' ')])] });
  }, [app, now]);
  const findings = counts ? counts.lookAt + counts.broken : undefined;
  const people = data?.total;
  const steps = useMemo(
    () => stepsOf({ definition, people, findings, seen: new Set(seen) }),
    [definition, people, findings, seen],
  );
  return (
    <section
      aria-label="Getting started"
      className="flex items-center gap-2 border-b border-edge bg-open-pale px-4 py-0.5 text-[13px]"
    >
      <span className="shrink-0 font-semibold">Getting started</span>
      <ol className="flex min-w-0 flex-wrap items-center gap-x-3">
        {steps.map(({ name, about, done, bench: at, part }, n) => (
          <li key={name} className="flex items-center gap-1">
            {done ? (
              <Check size={14} role="img" aria-label="Done" className="text-open" />
            ) : (
              <span aria-hidden className="w-3.5 text-center text-quiet">
                {n + 1}
              </span>
            )}
            <Link
              href={benchHref(app, at, part === undefined ? carried : { ...carried, part })}
              title={about}
              className={done ? 'text-quiet' : 'link'}
            >
              {name}
            </Link>
          </li>
        ))}
      </ol>
      <button
        type="button"
        aria-label="Close the steps"
        title="Close the steps. Ctrl+K, “Getting started” shows them again."
        className="ml-auto shrink-0 p-1.5 text-quiet hover:text-ink"
        onClick={() => PROGRESS.write(app, { closed: true })}
      >
        <X size={14} aria-hidden />
      </button>
    </section>
  );
}

/** What is seen at a bench: the bench, and on the Look bench the viewers of its panes. */
function seenAt(bench: string | null, { viewer, panes = [] }: BenchState): readonly string[] {
  if (bench !== 'look') return bench === null ? [] : [bench];
  const viewers = panes.map((pane) => new URLSearchParams(pane).get('viewer'));
  return [bench, ...[viewer, ...viewers].filter((key) => typeof key === 'string' && key !== '')] as string[];
}
