import { accessOf } from '../../access/deciding/access';
import { compile } from '../../access/deciding/compile';
import { resolveMenu } from '../../access/sent/frame';
import { resolve } from '../../access/sent/resolve';
import { SIGNED_IN, SIGNED_OUT, viewerOfRole } from '../../access/deciding/viewer';
import type { Definition } from '../../model/definition';
import type { Problem } from '../../model/problem';
import { menusOf } from '../../model/tree';
import { readDefinition } from '../../model/schema';

/**
 * What keeps a definition from being believed: it is read as if it came from a file, and made ready for deciding.
 * With `screens`, every screen and the menus are worked out too, for each login state and each role: what a release
 * does before anybody depends on it. Empty where it is sound.
 *
 * @example
 * findInvalidState(LARKFIELD, { screens: true }) // → []
 */
export function findInvalidState(
  definition: Definition,
  how: { readonly screens: boolean },
): readonly Problem[] {
  const read = readDefinition(definition);
  if (!read.ok) return read.problems;
  try {
    const compiled = compile(definition);
    if (!how.screens) return [];
    const viewers = [SIGNED_OUT, SIGNED_IN, ...definition.roles.map(({ id }) => viewerOfRole(id))];
    for (const viewer of viewers) {
      const access = accessOf(compiled, viewer, { moment: 0 });
      for (const menu of menusOf(definition)) resolveMenu(access, menu);
      for (const screen of compiled.tree.screens())
        if (screen.binds?.record !== 'existing') resolve(access, screen, undefined);
    }
    return [];
  } catch (error) {
    return [
      {
        code: 'undecidable',
        place: definition.name,
        message: `Access cannot be decided: ${(error as Error).message}.`,
        mend: 'Undo the last change.',
      },
    ];
  }
}
