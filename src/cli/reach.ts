import { accessOf, groupSimilarPeople, compile, Numbers } from '@/core';
import { allAlike, type Among, type Circumstances, kindsOf } from '@/core/access';
import type { ElementKind } from '@/core/model';
import type { World } from './world';
import { levelsText } from '@/core/expectations';

/** The whole matrix: a row for each element, a column for each viewer. */
export interface Reach {
  readonly viewers: readonly string[];
  readonly rows: readonly {
    readonly element: string;
    readonly kind: ElementKind;
    readonly name: string;
    readonly cells: readonly string[];
    /** Where it was asked for: for each viewer, how many of the people of its kind get it, where that says more than the cell. */
    readonly people?: readonly (Among | null)[];
  }[];
}

/**
 * Login states, roles in their order, groups, and the people named: what each gets of every element. For nobody in
 * particular `LEAST..MOST`, where it differs among their people.
 */
export function reach(world: World, people: readonly string[], moment: number, withNumbers = false): Reach {
  const { definition } = world;
  const compiled = compile(definition);
  const viewers = [
    ...kindsOf(definition),
    ...people.flatMap((key) => {
      const viewer = world.viewer(key);
      return viewer ? [{ key, viewer }] : [];
    }),
  ];
  const accesses = viewers.map(({ key, viewer }) => {
    const circumstances: Circumstances = { moment, session: world.session(key) };
    return accessOf(compiled, viewer, circumstances);
  });
  const numbers = withNumbers
    ? new Numbers(compiled, groupSimilarPeople(definition, world.people, { moment }), { moment })
    : undefined;
  return {
    viewers: viewers.map(({ key }) => key),
    rows: compiled.tree.elements.map((element) => ({
      element: element.id,
      kind: element.kind,
      name: element.name,
      cells: accesses.map((access) => {
        const { least, most } = access.answer(element);
        return levelsText({ least, most });
      }),
      ...(numbers && {
        people: accesses.map((access, n) => {
          const { least, most } = access.answer(element);
          const among = least < most ? numbers.among(viewers[n]?.key ?? '', element) : undefined;
          return among && !allAlike(among) ? among : null;
        }),
      }),
    })),
  };
}
