'use client';

import { useEffect } from 'react';
import { send } from '@/ui/client/send';
import { stopStandIn } from '@/contract/live';
import { useTell } from '../parts/toasts';
import { StandInPicker, type Props } from './stand-in-picker';

/** Who really is there, and what they may do while they look as somebody else. */
export interface StandIn {
  readonly name: string;
  readonly until: number;
  readonly changes: boolean;
  /** Do they get all that the other person gets? Else what both may see. */
  readonly full: boolean;
}

/** Who is looking as whom, over every page: it cannot be missed. One click leads back. */
export function StandingBar({
  app,
  base,
  standing,
  person,
  time,
}: Props & { standing: StandIn; person: string; time: (moment: number) => string }) {
  const tell = useTell();
  useEffect(() => {
    // When the time is over, the page is that of oneself again.
    const left = standing.until - Date.now();
    const timer = setTimeout(() => window.location.assign(base), Math.max(1000, left + 500));
    return () => clearTimeout(timer);
  }, [standing.until, base]);
  const back = (): void =>
    void send(stopStandIn, { app }).then((answer) =>
      answer.ok ? window.location.assign(base) : tell(answer.detail),
    );
  return (
    <section
      aria-label="Acting as someone else"
      className="on-lead sticky top-0 z-20 flex items-center gap-4 border-y-4 border-double border-white bg-lead px-5 py-2.5 text-[15px] text-white"
    >
      <p>
        <strong>{standing.name}</strong> is acting as <strong>{person}</strong>,{' '}
        {standing.full ? 'with that person’s full access' : 'with only the access both people have'},{' '}
        {standing.changes ? 'with permission to make changes' : 'read-only'}, until{' '}
        <time dateTime={new Date(standing.until).toISOString()}>{time(standing.until)}</time>. Everything is
        recorded in the audit trail under both names.
      </p>
      <span className="ml-auto flex shrink-0 gap-2">
        <StandInPicker app={app} base={base} label="Act as someone else…" />
        <button type="button" className="button" onClick={back}>
          Stop acting as this person
        </button>
      </span>
    </section>
  );
}
