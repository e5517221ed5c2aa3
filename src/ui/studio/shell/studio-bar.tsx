'use client';

import Link from 'next/link';
import { useSelectedLayoutSegment } from 'next/navigation';
import type { ReactNode } from 'react';
import { useAsked } from '@/ui/client/queries';
import { notesWaiting } from '@/contract/studio/look';
import { plural } from '@/core/edit';
import { BENCHES } from './benches';
import { benchHref, useCarried } from './bench-state';
import { Mark } from './mark';
import { Palette } from './palette';
import { useProofCounts } from './use-proof-counts';
import { enterRegion, useRegions } from './regions';
import { useSignOut } from './sign-out';
import { useStudio } from './studio-work';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly name: string;
  readonly applications: readonly { readonly slug: string; readonly name: string }[];
  readonly builder: string;
  /** How many changes wait for a release. */
  readonly waiting: number;
  /** What stands at the right: the saved state, undo and redo. */
  readonly children: ReactNode;
}

/** The studio's bar: the application, the line of benches, and who is working. */
export function StudioBar({ name, applications, builder, waiting, children }: Props) {
  const { app } = useStudio();
  const bench = useSelectedLayoutSegment();
  const carried = useCarried(app);
  const notes = useAsked(notesWaiting, { app }).data?.waiting ?? 0;
  const counts = useProofCounts(app);
  useRegions();
  const signOut = useSignOut();
  return (
    <header className="flex min-w-0 items-center gap-3 border-b border-edge bg-paper px-4 min-[1200px]:gap-4">
      <a
        href="#work"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-2"
        onClick={(event) => {
          event.preventDefault();
          enterRegion('work');
        }}
      >
        Skip to main content
      </a>
      <a
        href="/studio"
        className="flex items-center gap-2 font-semibold whitespace-nowrap"
        title="All applications"
      >
        <Mark />
        Zinc Gate
      </a>
      {applications.length > 1 ? (
        <Select
          aria-label="Application"
          className="w-auto max-w-48"
          value={app}
          onChoose={(chosen) => window.location.assign(`/studio/${chosen}/gates`)}
          options={applications.map((one) => ({ id: one.slug, name: one.slug === app ? name : one.name }))}
        />
      ) : (
        <span className="max-w-48 truncate border-l border-rule pl-3 min-[1200px]:pl-5" title={name}>
          {name}
        </span>
      )}
      <nav aria-label="Benches" className="flex items-center">
        {BENCHES.map((one, n) => (
          <span key={one.key} className="flex items-center">
            {n > 0 && <span aria-hidden className="mx-2 h-px w-2 bg-edge min-[1200px]:w-4" />}
            <Link
              href={benchHref(app, one.key, carried)}
              aria-current={one.key === bench ? 'page' : undefined}
              className="flex items-center gap-1.5 border-b-2 border-transparent py-1 aria-[current]:border-open aria-[current]:font-semibold"
            >
              {one.name}
              {one.key === 'release' && waiting > 0 && (
                <Badge n={waiting} what={plural(waiting, 'unreleased change', 'unreleased changes')} />
              )}
              {one.key === 'prove' && counts && counts.lookAt + counts.broken > 0 && (
                <Badge n={counts.lookAt + counts.broken} what="findings" amber />
              )}
              {one.key === 'look' && notes > 0 && (
                <Badge n={notes} what={plural(notes, 'access request', 'access requests')} />
              )}
            </Link>
          </span>
        ))}
      </nav>
      <div className="ml-auto flex min-w-0 items-center gap-3">
        {children}
        <Palette />
        <a
          className="hidden max-w-28 truncate border-l border-rule pl-3 text-quiet hover:text-ink min-[1200px]:inline"
          href="/studio/account"
          title="Your account"
        >
          {builder}
        </a>
        <button type="button" className="link shrink-0" title={builder} onClick={signOut}>
          Sign out
        </button>
      </div>
    </header>
  );
}

/** What waits at a bench. */
const Badge = ({ n, what, amber = false }: { n: number; what: string; amber?: boolean }) => (
  <span
    className={`rounded-sm px-1.5 text-[12px] font-medium text-white ${amber ? 'bg-amber' : 'bg-lead'}`}
    title={`${n} ${what}`}
  >
    {n}
    <span className="sr-only"> {what}</span>
  </span>
);
