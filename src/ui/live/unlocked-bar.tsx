'use client';

import { LockOpen } from 'lucide-react';
import type { ShownUnlock } from '@/core/access';
import { useHost } from './host';

/** What others have unlocked here: by whom, until when, and the way to lock it again at once. */
export function UnlockedBar({ unlocked }: { unlocked: readonly ShownUnlock[] }) {
  const host = useHost();
  const lock = async ({ element, record, name }: ShownUnlock): Promise<void> => {
    const answer = await host.lockAgain?.({ element, record });
    host.tell(answer?.ok ? `${name} is locked again.` : (answer?.detail ?? ''));
    host.refresh();
  };
  return (
    <ul aria-label="Unlocked on this page" className="mb-3 border-l-4 border-open bg-paper px-3 py-1.5">
      {unlocked.map((one) => (
        <li key={`${one.element} ${one.record}`} className="flex flex-wrap items-center gap-2">
          <LockOpen size={14} aria-hidden />
          <span>
            {one.name} is unlocked until {host.time(one.until)} (by {one.by}).
          </span>
          <button
            type="button"
            className="link min-h-[24px]"
            aria-label={`Lock ${one.name} again`}
            onClick={() => void lock(one)}
          >
            Lock again
          </button>
        </li>
      ))}
    </ul>
  );
}
