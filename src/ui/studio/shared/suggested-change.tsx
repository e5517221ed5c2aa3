'use client';

import { useEffect, useRef, useState } from 'react';
import { applyEdit, difference } from '@/core';
import type { Answer, Compiled, Level } from '@/core/access';
import {
  changeInWords,
  type Edit,
  type EditEffect,
  levelInWords,
  type PersonName,
  counted,
} from '@/core/edit';
import type { AppElement } from '@/core/model';
import { useAsked } from '@/ui/client/queries';
import { lookTurns, type SuggestedChange } from '@/contract/studio/look';

const LIST = new Intl.ListFormat('en-GB');

interface Props {
  readonly compiled: Compiled;
  readonly element: AppElement;
  readonly answer: Answer;
  readonly viewerName: string;
  readonly personName: PersonName;
  readonly app: string;
  /** How one looks and at what, but for the level. */
  readonly looks: string;
  readonly mayChange: boolean;
  readonly apply: (edit: Edit) => void;
  readonly onGate: (id: string) => void;
}

/** The smallest change that would turn the answer, with who else would gain or lose; and making it. */
export function SuggestedChangePart(props: Props) {
  const { element, answer, viewerName, app, looks } = props;
  const [level, setLevel] = useState<Level>();
  const { data, error } = useAsked(
    lookTurns,
    level === undefined ? undefined : { app, query: `${looks}&level=${level}` },
  );
  const found = data?.turns;
  const answered = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (found) answered.current?.scrollIntoView({ block: 'nearest' });
  }, [found]);
  const levels = ([2, 1, 0] as const).filter((one) => answer.least !== one || answer.most !== one);
  const uses = levelInWords(element.kind, 2) === 'Use';
  return (
    <div className="mt-3">
      <h3 className="mb-1 font-semibold">How to change it</h3>
      <div className="mb-1 flex flex-wrap items-center gap-1.5">
        Give {viewerName}
        {levels
          .filter((one) => !uses || one !== 1)
          .map((one) => (
            <button
              key={one}
              type="button"
              className="button py-0"
              aria-pressed={level === one}
              onClick={() => setLevel(one)}
            >
              {levelInWords(element.kind, one)}
            </button>
          ))}
      </div>
      <div ref={answered} aria-live="polite">
        {level !== undefined && !found && !error && (
          <p className="text-quiet">
            Looking for the smallest change…{' '}
            <button type="button" className="link" onClick={() => setLevel(undefined)}>
              Stop
            </button>
          </p>
        )}
        {error && <p>{error.message}</p>}
        {level !== undefined && found?.length === 0 && (
          <p>
            Changing lines cannot do this. Something other than access is missing, for example a button that
            saves.
          </p>
        )}
        {found?.map((turn, n) => (
          <TurnView key={n} {...props} turn={turn} />
        ))}
      </div>
    </div>
  );
}

function TurnView({
  compiled,
  personName,
  turn,
  mayChange,
  apply,
  onGate,
}: Props & { turn: SuggestedChange }) {
  const { definition } = compiled;
  const made = applyEdit(definition, turn.edit);
  const changes = made.ok
    ? difference(definition, made.value).map((one) => changeInWords(one, definition, made.value, personName))
    : [];
  const { gaining, losing, signedOut, kinds, elements } = turn.effect;
  const anybody =
    [gaining, losing, kinds.gaining, kinds.losing].some((some) => some.length > 0) ||
    signedOut.gains ||
    signedOut.loses;
  return (
    <div className="mt-2 border-l-4 border-lead bg-plate px-3 py-2">
      {changes.map(({ about, done }) => (
        <p key={about}>
          <strong className="font-semibold">{about}</strong>: {done.join(' ')}
        </p>
      ))}
      <p className="mt-1">
        {!anybody && 'Nobody else gains or loses access.'}
        {gaining.length > 0 && <People n={gaining.length} names={gaining} verb="gain" />}{' '}
        {losing.length > 0 && <People n={losing.length} names={losing} verb="lose" />}
        {signedOut.gains && ' Signed-out visitors would gain access.'}
        {signedOut.loses && ' Signed-out visitors would lose access.'}
        <KindsMoved kinds={kinds} />
      </p>
      {elements.length > 1 && (
        <details>
          <summary className="min-h-[24px] text-quiet">
            It changes access to {elements.length} elements
          </summary>
          <p>{elements.join(', ')}</p>
        </details>
      )}
      <p className="mt-1 flex gap-3">
        {mayChange && made.ok && (
          <button type="button" className="button button-main" onClick={() => apply(turn.edit)}>
            Apply this change
          </button>
        )}
        {turn.gates[0] !== undefined && (
          <button type="button" className="link" onClick={() => onGate(turn.gates[0] as string)}>
            Open gate
          </button>
        )}
      </p>
    </div>
  );
}

/** Of roles it is told also where nobody holds them yet. */
export function KindsMoved({ kinds }: Pick<EditEffect, 'kinds'>) {
  const said = (names: readonly string[], verb: string): string =>
    names.length === 0
      ? ''
      : ` As kinds of viewers, ${LIST.format(names)} would ${verb}, even if nobody has that role yet.`;
  return <>{said(kinds.gaining, 'gain') + said(kinds.losing, 'lose')}</>;
}

function People({ n, names, verb }: { n: number; names: readonly string[]; verb: 'gain' | 'lose' }) {
  return (
    <details className="inline">
      <summary className="inline min-h-[24px]">
        {counted(n, 'other person', 'other people')} would {verb} access.
      </summary>
      <span className="text-quiet"> {names.join(', ')}</span>
    </details>
  );
}
