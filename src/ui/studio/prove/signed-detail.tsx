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
        What is signed off is kept as it was, people’s roles included. Later it is asked what differs, and who
        did it.
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
          As a file
        </a>
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-2 border-t border-rule pt-3 text-[13px]">
        Against
        <select
          aria-label="Compared with"
          className="field-box w-40"
          value={other}
          onChange={(event) => setOther(event.target.value)}
        >
          <option value="">now</option>
          {all
            .filter(({ id }) => id !== chosen.id)
            .map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
        </select>
        <select
          aria-label="Grouped by"
          className="field-box w-32"
          value={by}
          onChange={(event) => setBy(event.target.value as Grouping)}
        >
          <option value="change">by change</option>
          <option value="viewer">by viewer</option>
          <option value="element">by element</option>
        </select>
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
