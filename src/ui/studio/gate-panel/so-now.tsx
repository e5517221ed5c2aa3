'use client';

import type { Answer } from '@/core/access/level';
import { answerInWords } from '@/core/edit/words';
import { personViewer, useBench } from '../bench';
import { LevelMark } from '../level-mark';

/** What comes of all gates and doors together for the selected element, in words. */
export function SoNow() {
  const { viewers, accessOf, selected, people } = useBench();
  const groups = new Map<string, { answer: Answer; names: string[] }>();
  for (const viewer of viewers) {
    const answer = accessOf(viewer).answer(selected);
    const word = answerInWords(selected.kind, answer);
    const group = groups.get(word) ?? { answer, names: [] };
    group.names.push(viewer.name);
    groups.set(word, group);
  }
  const rank = ({ least, most }: Answer): number => most * 3 + least;
  const sorted = [...groups].sort(([, a], [, b]) => rank(b.answer) - rank(a.answer));
  const active = people.filter((one) => one.active);
  const reached = active.filter((one) => accessOf(personViewer(one)).answer(selected).most > 0).length;
  return (
    <div className="mb-4" aria-live="polite">
      <div className="mb-1 flex justify-between">
        <h3 className="font-semibold">So now</h3>
        <span className="text-quiet">
          {reached} of {active.length} people
        </span>
      </div>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        {sorted.map(([word, { answer, names }]) => (
          <div key={word} className="contents">
            <dt className="flex items-center gap-1.5">
              <LevelMark answer={answer} />
              {word}
            </dt>
            <dd>{names.join(', ')}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
