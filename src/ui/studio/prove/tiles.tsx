'use client';

import { useState, type ReactNode } from 'react';
import type { ListedSignOff, ProofState, ShownSweep } from '@/contract/studio/proving';
import { counted, countedOr, plural } from '@/core/edit';
import { useDraft } from '../shell/studio-work';
import { tooOld } from './signed-part';
import { dayOf } from './since-in-words';
import { isUnderWay } from './sweep-part';
import { useProofSettings } from './use-proof-settings';

/** The parts of the bench. */
export type Part = 'look-at' | 'expected' | 'sweep' | 'signed';

interface Props {
  readonly proof: ProofState | null;
  readonly expected: number;
  readonly sweep: ShownSweep | undefined;
  readonly signed: ListedSignOff | undefined;
  readonly revision: number;
  readonly onPart: (part: Part) => void;
}

/** What is known at a glance; each leads to its part. */
export function Tiles({ proof, expected, sweep, signed, revision, onPart }: Props) {
  const { definition } = useDraft();
  const { settings } = useProofSettings();
  const [now] = useState(() => Date.now());
  const open = proof?.findings.filter((one) => !one.aside) ?? [];
  const letsIn = open.filter(({ rank }) => rank === 'lets-in').length;
  const broken = proof?.broken.length ?? 0;
  const old = tooOld(signed, settings?.remindDays ?? null, now);
  return (
    <div className="grid auto-cols-fr grid-flow-col border-t-2 border-ink bg-paper">
      <Tile
        figure={proof ? String(open.length) : '…'}
        says={plural(open.length, 'finding', 'findings')}
        more={countedOr('no access risk', letsIn, 'access risk')}
        amber={open.length > 0}
        onPress={() => onPart('look-at')}
      />
      <Tile
        figure={expected === 0 ? 'None' : `${expected - broken} of ${expected}`}
        says={expected === 0 ? 'expectations yet' : 'expectations met'}
        more={
          expected === 0
            ? 'record the access that must not change'
            : broken === 0
              ? 'none broken by the draft'
              : `${broken} broken by the draft`
        }
        amber={broken > 0}
        onPress={() => onPart('expected')}
      />
      <Tile
        figure={sweep ? counted(sweep.surpriseCount, 'mismatch', 'mismatches') : 'No sweep'}
        says={sweep ? `in ${sweep.asked.toLocaleString('en-GB')} requests` : 'run yet'}
        more={sweep ? sweptInWords(sweep, revision) : 'test the running server'}
        amber={(sweep?.surpriseCount ?? 0) > 0}
        onPress={() => onPart('sweep')}
      />
      <Tile
        figure={
          signed
            ? signed.release === null
              ? `Revision ${signed.revision}`
              : `Release ${signed.release}`
            : 'Nothing'
        }
        says={signed ? 'signed off' : 'signed off yet'}
        more={
          signed
            ? `by ${signed.by}, ${dayOf(definition, signed.at)}${old === undefined ? '' : `; ${old} days ago (due every ${settings?.remindDays ?? 0} days)`}`
            : 'review and confirm who has access'
        }
        amber={old !== undefined}
        onPress={() => onPart('signed')}
      />
    </div>
  );
}

function sweptInWords(sweep: ShownSweep, revision: number): string {
  if (isUnderWay(sweep)) return `as ${sweep.viewers} of ${sweep.ofViewers} viewers so far`;
  const edits = revision - sweep.revision;
  const ago = countedOr('current revision', edits, 'edit ago', 'edits ago');
  return `${sweep.state === 'done' ? 'completed' : sweep.state} at revision ${sweep.revision}, ${ago}`;
}

function Tile({
  figure,
  says,
  more,
  amber,
  onPress,
}: {
  figure: ReactNode;
  says: string;
  more: string;
  amber: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className="flex flex-col items-start border-r border-rule px-3.5 pt-2 pb-2.5 text-left hover:bg-plate"
      onClick={onPress}
    >
      <span
        className={`block text-[22px] leading-tight font-semibold tabular-nums ${amber ? 'text-amber' : ''}`}
      >
        {figure}
      </span>
      <span className="block">{says}</span>
      <span className="block text-[13px] text-quiet">{more}</span>
    </button>
  );
}
