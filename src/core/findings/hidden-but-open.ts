import { NONE } from '../access/deciding/level';
import { editLines } from '../edit/edits/make';
import type { AppElement } from '../model/tree';
import { copied, type AskedViewer, type Context } from './context';
import type { Check, Mend } from './finding';

/**
 * Every way to a screen is hidden from somebody by lines of the menu item or button, and the screen opens for them all
 * the same when they type its address. A handle narrows what one sees, not what one may do: the screen is the door.
 *
 * Has it: a menu item for registrars only, whose screen follows an area that is open to everybody signed in.
 * Has it not: the same lines at the screen; the menu item follows by itself.
 */
export const hiddenButOpen: Check = {
  kind: 'hidden-but-open',
  rank: 'lets-in',
  title: 'The menu hides it, the address opens',
  *find(context) {
    for (const screen of context.tree.elements) {
      if (screen.kind !== 'screen') continue;
      const ways = context.compiled.handles.handlesOf(screen).flatMap((id) => context.element(id) ?? []);
      const narrow = ways.filter((way) => gated(context, way).length > 0);
      if (narrow.length === 0) continue;
      const whom = context.viewers.filter(
        (viewer) =>
          context.most(viewer, screen) > NONE &&
          ways.every((way) => context.most(viewer, way) === NONE) &&
          narrow.some((way) => gated(context, way).some((one) => context.isHiddenByOwnLines(viewer, one))),
      );
      if (whom.length === 0) continue;
      const [way] = narrow as [AppElement];
      yield {
        reason: `${way.name} is hidden from ${context.names(whom)}, and the screen ${screen.name} opens for them when they type its address.`,
        places: [screen.id, ...narrow.map(({ id }) => id)],
        whom,
        mends: mendsFor(context, screen, way, whom),
      };
    }
  },
};

/** The way itself and the menu items over it, where they have lines of their own. */
function gated({ compiled }: Context, way: AppElement): AppElement[] {
  const over: AppElement[] = [];
  for (let one: AppElement | undefined = way; one; one = one.container) {
    if (one !== way && one.kind !== 'menu-item' && one.kind !== 'menu') break;
    if (compiled.lines(one.id)) over.push(one);
  }
  return over;
}

/** One way is mended where its own lines are all that hides it. */
function mendsFor(
  context: Context,
  screen: AppElement,
  way: AppElement,
  whom: readonly AskedViewer[],
): Mend[] {
  const { compiled } = context;
  const lines = compiled.lines(way.id);
  if (!lines || !whom.every((viewer) => context.isHiddenByOwnLines(viewer, way))) return [];
  const following: Mend = {
    says: `Let ${way.name} follow: whoever can open the screen sees it.`,
    edit: { do: 'follow', gate: way.id, lines },
  };
  // A condition on the record of one means nothing on another.
  const fits =
    context.tree.recordOf(screen) === context.tree.recordOf(way) || lines.every(({ when }) => !when);
  if (!fits) return [following];
  return [
    {
      says: `Give the screen ${screen.name} the lines of ${way.name}: who does not see it cannot open it either.`,
      edit: editLines(screen.id, compiled.lines(screen.id), copied(lines)),
    },
    following,
  ];
}
