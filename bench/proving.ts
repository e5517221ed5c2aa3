import { applyEdit, matrixOf, viewerOfPerson } from '@/core';
import { Compiled, everybody, idInKey, kindsOf, rightNow } from '@/core/access';
import { brokenOf, type Expectation } from '@/core/expectations';
import { findingsIn } from '@/core/findings';
import { Random } from '@/core/making';
import { type Definition, treeOf } from '@/core/model';
import { bigApplication, bigPeople } from './big';
import { median, type Measure } from './measure';

const EXPECTED = 500;

/**
 * What is worked out after one edit of 300 screens, 6,000 elements, 40 roles and 5,000 people, against one matrix of the
 * same size: all findings, and 500 expectations.
 */
export function measureProving(): Measure[] {
  const random = new Random(11);
  const definition = bigApplication(random);
  const people = bigPeople(random);
  const persons = everybody(people).filter(({ key }) => idInKey('person', key) !== undefined);
  const kinds = kindsOf(definition);
  const viewers = [...kinds.map(({ viewer }) => viewer), ...people.map(viewerOfPerson)];
  let edits = 0;
  /** Another definition each time, as after an edit: nothing of it is worked out yet. */
  const edited = (): Definition => {
    const line = { id: `edit${edits++}`, who: { kind: 'role', role: 'r1' }, what: 'see' } as const;
    const made = applyEdit(definition, { do: 'addLine', gate: 's0', line, at: 0 });
    if (!made.ok) throw new Error(made.problems[0]?.message);
    return made.value;
  };
  const { elements } = treeOf(definition);
  const expected = Array.from({ length: EXPECTED }, (_, n): Expectation & { id: string } => ({
    id: String(n),
    name: 'Expected',
    reason: '',
    viewer: kinds[n % kinds.length]?.key ?? '',
    element: elements[random.whole(0, elements.length - 1)]?.id ?? '',
    expect: { least: 0, most: 0 },
  }));
  const byKey = new Map(kinds.map(({ key, viewer }) => [key, viewer] as const));
  const asked = { viewer: (key: string) => byKey.get(key), record: () => undefined, now: Date.now() };
  const [findings = 0, checks = 0, matrix = 1] = median(
    [
      () => void findingsIn(edited(), persons, Date.now()),
      () => void brokenOf(edited(), expected, asked),
      () => void matrixOf(new Compiled(edited()), viewers, rightNow()),
    ],
    3,
  );
  const measure = (name: string, ours: number, most: number): Measure => ({
    name,
    ours,
    against: matrix,
    unit: 'ms',
    ratio: ours / matrix,
    most,
  });
  return [
    measure('findings after an edit at 6,000 elements and 5,000 people, against a matrix', findings, 3),
    measure(`${EXPECTED} expectations checked after an edit, against a matrix`, checks, 0.5),
  ];
}
