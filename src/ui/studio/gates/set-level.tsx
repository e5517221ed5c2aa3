'use client';

import { accessOf, compile, proposeLevel } from '@/core';
import { type PeopleGroup, type Assignment, idInKey, type Level, type Viewer } from '@/core/access';
import { answerInWords, levelInWords, lineInWords, startLines } from '@/core/edit';
import type { Definition } from '@/core/model';
import { useCallback } from 'react';
import { useConfirm } from '../../parts/asking';
import { useTell } from '../../parts/toasts';
import { namesOf } from '../shared/use-people';
import type { Bench } from '../frame/bench';

/** Others, who may change too: a kind of viewer, or people who are alike. */
interface Other {
  readonly key: string;
  readonly viewer: Viewer;
  /** What they are called. */
  readonly name: string;
}

/** Who else would have what: by what they would have. */
type HaveThen = readonly (readonly [word: string, names: readonly string[]])[];

const isJust = (given: Assignment | undefined, role: string): boolean =>
  given?.role === role && !given.unit && !given.from && !given.until;

/** How many of people who are alike are named. */
const MOST_NAMES = 3;

/** Who might change beside the viewer whose level is set. */
function othersThan({ viewer, viewers, people }: Bench): Other[] {
  const held = idInKey('role', viewer.key);
  const isWhomItIsAbout = ({ viewer: one, some }: PeopleGroup): boolean => {
    if (one.kind !== 'signed-in') return false;
    // Who holds just this role, everywhere and for good, is whom it is about.
    if (held !== undefined) return one.assignments.length === 1 && isJust(one.assignments[0], held);
    return one.person !== undefined && some[0]?.id === idInKey('person', viewer.key);
  };
  return [
    ...viewers
      .filter((one) => one.group !== 'person')
      .map((one) => ({ key: one.name, viewer: one.viewer, name: one.name })),
    ...people.alike
      .filter((one) => !isWhomItIsAbout(one))
      .map((one, n) => ({ key: `alike ${n}`, viewer: one.viewer, name: namesOf([one], MOST_NAMES) })),
  ];
}

/** Those who would change, by what they would have then. */
function whatTheyHave(
  { selected, circumstances }: Bench,
  after: Definition,
  among: readonly Other[],
  changing: readonly string[],
): HaveThen {
  const then = new Map<string, string[]>();
  for (const { key, viewer, name } of among) {
    if (!changing.includes(key)) continue;
    const access = accessOf(compile(after), viewer, circumstances);
    const word = answerInWords(selected.kind, access.answer(access.element(selected.id)));
    then.set(word, [...(then.get(word) ?? []), name]);
  }
  return [...then];
}

/**
 * Sets the level of the selected element for the viewer, with the fewest lines. Where others would change
 * too, it says first who, and to what: those as well who hold a role among others.
 */
export function useSetLevel(bench: Bench): (level: Level) => Promise<void> {
  const tell = useTell();
  const confirm = useConfirm();
  return useCallback(
    async (level) => {
      const { definition, selected, target, viewer, apply, accessFor, circumstances } = bench;
      const word = levelInWords(selected.kind, level);
      const now = accessFor(viewer).answer(selected);
      if (now.least === level && now.most === level) return tell(`${viewer.name} already has “${word}”.`);
      const others = othersThan(bench);
      const start = startLines(definition, target.id);
      const proposal = proposeLevel(definition, {
        element: selected.id,
        gate: target.id,
        viewer: { key: viewer.name, viewer: viewer.viewer },
        level,
        others,
        start,
        at: circumstances,
      });
      if (!proposal)
        return tell(
          `A line on ${target.name} cannot give ${viewer.name} “${word}”, because its container or its door gives less. See Why in the panel on the right.`,
        );
      if (proposal.others.length + proposal.blocks.length === 0) return apply(proposal.edit);
      const blocks = proposal.blocks.map((one) => lineInWords(one, target.id, definition, bench.personName));
      const moved = whatTheyHave(bench, proposal.definition, others, proposal.others);
      const sure = await confirm({
        title: `${selected.name}: “${word}” for ${viewer.name}`,
        text: (
          <>
            {blocks.length > 0 && <Blocks lines={blocks} />}
            {moved.length > 0 && <Others others={moved} />}
          </>
        ),
        go: moved.length > 0 ? 'Change all of them' : 'Add the block',
      });
      if (sure) apply(proposal.edit);
    },
    [bench, tell, confirm],
  );
}

/** A block is the last resort, and told before it is added. */
function Blocks({ lines }: { lines: readonly string[] }) {
  return (
    <p className="mb-2">
      No line can be removed or narrowed for this, so the line {`“${lines.join('”, “')}”`} will be added. It
      blocks everyone it is about, including people who also hold another role, whatever other lines give
      them.
    </p>
  );
}

/** Who else would have what. */
function Others({ others }: { others: HaveThen }) {
  return (
    <>
      <p>This also changes access for others:</p>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3">
        {others.map(([word, names]) => (
          <div key={word} className="contents">
            <dt className="font-semibold">{word}</dt>
            <dd>{names.join(', ')}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
