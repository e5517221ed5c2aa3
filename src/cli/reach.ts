import { compile } from '@/core/access/compile';
import { SIGNED_IN, SIGNED_OUT, viewerOfRole, type Circumstances, type Viewer } from '@/core/access/viewer';
import type { World } from './world';
import { levelName } from './decide';

/** The whole matrix: a row for each element, a column for each viewer. */
export interface Reach {
  readonly viewers: readonly string[];
  readonly rows: readonly {
    readonly element: string;
    readonly kind: string;
    readonly name: string;
    readonly cells: readonly string[];
  }[];
}

/** Login states, roles in their order, and the people named: what each gets of every element. */
export function reach(world: World, people: readonly string[], moment: number): Reach {
  const { definition } = world;
  const compiled = compile(definition);
  const viewers: readonly (readonly [string, Viewer])[] = [
    ['signed-out', SIGNED_OUT],
    ['signed-in', SIGNED_IN],
    ...definition.roles.map((role) => [`role:${role.id}`, viewerOfRole(role.id)] as const),
    ...people.flatMap((key) => {
      const viewer = world.viewer(key);
      return viewer ? [[key, viewer] as const] : [];
    }),
  ];
  const accesses = viewers.map(([key, viewer]) => {
    const circumstances: Circumstances = { moment, session: world.session(key) };
    return compiled.access(viewer, circumstances);
  });
  return {
    viewers: viewers.map(([key]) => key),
    rows: compiled.tree.elements.map((element) => ({
      element: element.id,
      kind: element.kind,
      name: element.name,
      cells: accesses.map((access) => {
        const { least, most } = access.answer(element);
        return least === most ? levelName(most) : `${levelName(least)}..${levelName(most)}`;
      }),
    })),
  };
}
