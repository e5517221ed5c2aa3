'use client';

import { ExternalLink } from 'lucide-react';
import dynamic from 'next/dynamic';
import type { ShownButton } from '@/core/access';
import { hostOf } from '@/core/model';
import { useHost } from './host';

/** Only screens with such a button load what it takes. */
const BulkWindow = dynamic(() => import('./bulk-window').then((part) => part.BulkWindow));

/** A button of a screen or a row. One that only leads somewhere is a link. */
export function ButtonView({
  button,
  busy,
  run,
  record,
  small = false,
}: {
  button: ShownButton;
  busy: boolean;
  run: (button: ShownButton) => Promise<void>;
  /** The record of its screen, where that shows one. */
  record?: string | undefined;
  small?: boolean;
}) {
  const host = useHost();
  const { effect } = button;
  const size = small ? 'px-2 py-0 text-[13px]' : '';
  if (effect.do === 'open')
    return (
      <a
        className={`button ${size}`}
        data-element={button.id}
        href={host.hrefOf(effect.address) ?? '#'}
        onClick={(event) => {
          if (event.metaKey || event.ctrlKey || event.button !== 0) return;
          event.preventDefault();
          host.go(effect.address);
        }}
      >
        {button.name}
      </a>
    );
  if (effect.do === 'visit')
    return (
      <a
        className={`button ${size}`}
        data-element={button.id}
        href={effect.url}
        target="_blank"
        rel="noopener noreferrer"
        title={`Opens an external page at ${hostOf(effect.url)}`}
      >
        {button.name}
        <ExternalLink size={13} className="ml-1.5 inline" aria-label={`(external: ${hostOf(effect.url)})`} />
      </a>
    );
  if (effect.do === 'bulk') return <BulkWindow button={button} effect={effect} record={record} />;
  return (
    <button
      type="button"
      data-element={button.id}
      className={`button ${size} ${effect.do === 'save' ? 'button-main' : ''}`}
      // Not `disabled`: it can still be reached, read, and asked about in the studio.
      aria-disabled={!button.usable || busy}
      title={button.usable ? undefined : 'You can see this button but cannot use it.'}
      onClick={() => {
        if (button.usable && !busy) void run(button);
      }}
    >
      {button.name}
    </button>
  );
}
