'use client';

import { useState } from 'react';
import { compareSignOff, type ListedSignOff, signOffFile } from '@/contract/studio/proving';
import { urlOf } from '@/ui/client/send';
import { useWorkedOut } from '@/ui/client/worked-out';
import { useDraft, useStudio } from '../shell/studio-work';
import { Progress } from '../shared/progress';
import type { Grouping } from './compared';
import { Differences } from './differences';
import { whenInWords } from './since-in-words';
import { Select } from '@/ui/parts/select';

/** What was signed off, and what differs from it: who gained and who lost what, and by which edit. */
export function SignedDetail({
  all,
  chosen,
}: {
  all: readonly ListedSignOff[];
  chosen: ListedSignOff | undefined;
}) {
  const { app } = useStudio();
  const { definition, revision } = useDraft();
  const [other, setOther] = useState('');
  const [by, setBy] = useState<Grouping>('change');
  const { data, problem, progress, again } = useWorkedOut(
    compareSignOff,
    chosen && { app, id: chosen.id, query: { with: other || undefined } },
    other === '' ? revision : 0,
    { keepsLast: false },
  );
  if (!chosen)
    return (
      <p className="text-quiet">
        A sign-off keeps the definition and everyone’s roles unchanged. You can later compare it with the
        current state and see who made each change.
      </p>
    );
  return (
    <>
      <h2 className="text-[16px] font-semibold">{chosen.title}</h2>
      <p className="text-[13px] text-quiet">
        Signed off by {chosen.by}, {whenInWords(definition, chosen.at)},{' '}
        {chosen.release === null ? `revision ${chosen.revision}` : `release ${chosen.release}`}
      </p>
      {chosen.wasOld && (
        <p className="text-[13px]">
          Revision {chosen.revision} was not the newest when it was signed off. It is combined with the people
          and roles of {whenInWords(definition, chosen.at)}.
        </p>
      )}
      <p className="mt-1 font-mono text-[11px] break-all text-quiet" title="SHA-256 of its file">
        {chosen.sha256}
      </p>
      <p className="mt-1 flex gap-3 text-[13px]">
        <a className="link" href={`/studio/${app}/prove/${chosen.id}/print`} target="_blank" rel="noreferrer">
          Print
        </a>
        <a className="link" href={urlOf(signOffFile, { app, id: chosen.id })}>
          Export
        </a>
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-2 border-t border-rule pt-3 text-[13px]">
        Compare with
        <Select
          aria-label="Compared with"
          className="w-40"
          value={other}
          onChoose={setOther}
          none="now"
          options={all.filter(({ id }) => id !== chosen.id).map(({ id, title }) => ({ id, name: title }))}
        />
        <Select
          aria-label="Grouped by"
          className="w-32"
          value={by}
          onChoose={(chosen) => setBy(chosen as Grouping)}
          options={[
            { id: 'change', name: 'by change' },
            { id: 'viewer', name: 'by viewer' },
            { id: 'element', name: 'by element' },
          ]}
        />
      </div>
      {data ? (
        <Differences data={data} by={by} definition={definition} />
      ) : progress ? (
        <div className="mt-2">
          <Progress says="Comparing" {...progress} />
        </div>
      ) : (
        <p role="alert" className="mt-2">
          {problem ?? 'Stopped.'}{' '}
          <button type="button" className="link" onClick={again}>
            Compare again
          </button>
        </p>
      )}
    </>
  );
}
