import { compile } from '../access/deciding/compile';
import { sameAnswer, type Answer } from '../access/deciding/level';
import { viewerOfPerson, type Person } from '../access/deciding/viewer';
import { kindsOf, viewerKey, type KeyedViewer } from '../access/deciding/viewer-key';
import { matrixOf, unpacked } from '../access/questions/cells';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';

/** Who gets what at one time: a definition, and the people with their roles. */
export interface Standing {
  readonly definition: Definition;
  readonly people: readonly Person[];
}

/** A cell that is another: what one viewer gets of one element. */
export interface ChangedCell {
  /** The viewer's key. */
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: Id;
  readonly before: Answer;
  readonly after: Answer;
}

const NOTHING: Answer = { least: 0, most: 0 };

/**
 * What differs between two times, whatever has changed: gates, roles, people, elements that came or went. `moment` is
 * what periods and times are counted at, on both sides. What was not there gave nothing.
 */
export function changedCells(before: Standing, after: Standing, moment: number): ChangedCell[] {
  const [was, is] = [rowsOf(before, moment), rowsOf(after, moment)];
  const changed: ChangedCell[] = [];
  for (const key of new Set([...was.keys(), ...is.keys()])) {
    const [then, now] = [was.get(key), is.get(key)];
    const elements = new Set([...(then?.answers.keys() ?? []), ...(now?.answers.keys() ?? [])]);
    for (const element of elements) {
      const one = then?.answers.get(element) ?? NOTHING;
      const other = now?.answers.get(element) ?? NOTHING;
      if (!sameAnswer(one, other))
        changed.push({
          viewer: key,
          viewerName: now?.name ?? then?.name ?? key,
          element,
          before: one,
          after: other,
        });
    }
  }
  return changed;
}

/** Does it give more, less, or both, than before? */
export const gains = ({ before, after }: Pick<ChangedCell, 'before' | 'after'>): boolean =>
  after.most > before.most || after.least > before.least;

interface Row {
  readonly name: string;
  /** Of what gives something. */
  readonly answers: ReadonlyMap<Id, Answer>;
}

function rowsOf({ definition, people }: Standing, moment: number): Map<string, Row> {
  const compiled = compile(definition);
  const { elements } = compiled.tree;
  const viewers: readonly KeyedViewer[] = [
    ...kindsOf(definition),
    // Who is switched off gets what is open to everybody; that is told as theirs.
    ...people.map((person) => ({
      key: viewerKey('person', person.id),
      name: person.name,
      viewer: viewerOfPerson(person),
    })),
  ];
  const matrix = matrixOf(
    compiled,
    viewers.map(({ viewer }) => viewer),
    { moment, whenever: true },
  );
  return new Map(
    viewers.map(({ key, name }, row) => {
      const answers = new Map<Id, Answer>();
      for (const { id, number } of elements) {
        const byte = matrix[row * elements.length + number] ?? 0;
        if (byte !== 0) answers.set(id, unpacked(byte));
      }
      return [key, { name, answers }] as const;
    }),
  );
}
