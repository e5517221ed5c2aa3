import { applyEdit, matrixOf, viewerOfPerson } from '@/core';
import { Compiled, everybody, rightNow } from '@/core/access';
import { compareReach } from '@/core/edit';
import { Random } from '@/core/making';
import type { Definition } from '@/core/model';
import { ORGANISATION, organisation, organisationPeople } from './organisation';
import { median, type Measure } from './measure';

const MANY_LINES = 245;

/**
 * Whose access a changed line, and many of them, change in an application of the size of a large organisation, against
 * one matrix of the same people.
 */
export function measureReviewing(): Measure[] {
  const random = new Random(11);
  const definition = organisation(random);
  const people = organisationPeople(random);
  let edits = 0;
  const edited = (lines: number): Definition => {
    let made = definition;
    for (let n = 0; n < lines; n++) {
      const who = { kind: 'role', role: `r${n % ORGANISATION.roles}` } as const;
      const line = { id: `edit${edits++}`, who, what: 'edit' } as const;
      const next = applyEdit(made, {
        do: 'addLine',
        gate: `s${(5 + n) % ORGANISATION.screens}`,
        line,
        at: 0,
      });
      if (!next.ok) throw new Error(next.problems[0]?.message);
      made = next.value;
    }
    return made;
  };
  const compare = (lines: number) => () =>
    void compareReach(definition, edited(lines), everybody(people), rightNow());
  const matrix = (): void => void matrixOf(new Compiled(definition), people.map(viewerOfPerson), rightNow());
  const [one = 0, all = 1] = median([compare(1), matrix], 3);
  const [many = 0] = median([compare(MANY_LINES)], 1);
  return [
    {
      name: `who gains and loses by a changed line, of ${people.length} people who all differ, against a matrix`,
      ours: one,
      against: all,
      unit: 'ms',
      ratio: one / all,
      most: 4,
    },
    {
      name: `who gains and loses by ${MANY_LINES} changed lines, of the same people, against a matrix`,
      ours: many,
      against: all,
      unit: 'ms',
      ratio: many / all,
    },
  ];
}
