'use client';

import Link from 'next/link';
import type { ReactNode } from 'react';
import { ask } from '../live/host';
import { useTell } from '../parts/toasts';
import { Palette } from './palette';

interface Props {
  readonly slug: string;
  readonly name: string;
  readonly applications: readonly { readonly slug: string; readonly name: string }[];
  readonly builder: string;
  readonly bench: 'people' | 'gates' | 'look' | 'release';
  /** How many changes wait for a release. */
  readonly waiting: number;
  /** What the palette does on this bench, rather than leaving for another. */
  readonly onElement?: (id: string) => void;
  readonly onViewer?: (key: string) => void;
  /** What stands at the right: the saved state, undo and redo. */
  readonly children?: ReactNode;
}

const BENCHES = [
  { key: 'people', name: 'People' },
  { key: 'gates', name: 'Gates' },
  { key: 'look', name: 'Look' },
  { key: 'release', name: 'Release' },
] as const;

/** The studio's top: the application, the line of benches, and who is working. */
export function StudioTop(props: Props) {
  const { slug, name, applications, builder, bench, waiting, children, onElement, onViewer } = props;
  const tell = useTell();
  const signOut = (): void =>
    void ask('/studio/api/session', { method: 'DELETE' }).then((answer) =>
      answer.ok ? window.location.assign('/studio/sign-in') : tell(answer.detail),
    );
  return (
    <header className="col-span-3 flex h-[46px] items-center gap-5 border-b border-edge bg-paper px-4">
      <span className="flex items-center gap-2 font-semibold">
        <Mark />
        Zinc Gate
      </span>
      {applications.length > 1 ? (
        <select
          aria-label="Application"
          className="field-box w-auto"
          value={slug}
          onChange={(event) => window.location.assign(`/studio/${event.target.value}/gates`)}
        >
          {applications.map((one) => (
            <option key={one.slug} value={one.slug}>
              {one.name}
            </option>
          ))}
        </select>
      ) : (
        <span className="border-l border-rule pl-5">{name}</span>
      )}
      <nav aria-label="Benches" className="flex items-center">
        {BENCHES.map((one, n) => (
          <span key={one.key} className="flex items-center">
            {n > 0 && <span aria-hidden className="mx-2 h-px w-8 bg-edge" />}
            <Link
              href={`/studio/${slug}/${one.key}`}
              aria-current={one.key === bench ? 'page' : undefined}
              className="flex items-center gap-1.5 border-b-2 border-transparent py-1 aria-[current]:border-open aria-[current]:font-semibold"
            >
              {one.name}
              {one.key === 'release' && waiting > 0 && (
                <span
                  className="rounded-sm bg-lead px-1.5 text-[12px] font-medium text-white"
                  title={`${waiting} changes are not released`}
                >
                  {waiting}
                </span>
              )}
            </Link>
          </span>
        ))}
      </nav>
      <div className="ml-auto flex items-center gap-3">
        {children}
        <Palette slug={slug} onElement={onElement} onViewer={onViewer} />
        <span className="border-l border-rule pl-4 text-quiet">{builder}</span>
        <button type="button" className="link" onClick={signOut}>
          Sign out
        </button>
      </div>
    </header>
  );
}

/** Two posts and a bar that is half up. */
function Mark() {
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden>
      <path d="M2.5 1.5v15M15.5 1.5v15" stroke="var(--color-ink)" strokeWidth="2.4" />
      <path d="M2.5 12 L15.5 6" stroke="var(--color-open)" strokeWidth="2.4" />
    </svg>
  );
}
