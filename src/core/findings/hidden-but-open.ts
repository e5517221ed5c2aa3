import { NONE } from '../access/deciding/level';
import { editLines } from '../edit/edits/make';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check, ProposedMend } from './finding';
import { addingLines, followingFor, narrowed } from './mends';
import { called, sentence } from './words';

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
  title: 'Hidden in the menu but open by address',
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
        reason: sentence(
          `${called(way)} is hidden from ${context.names(whom)}, but they can still open ${called(screen)} by entering its address.`,
        ),
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

/** The screen is closed to them too; or, where the way's own lines are all that hides it, the way is shown to them. */
function mendsFor(
  context: Context,
  screen: AppElement,
  way: AppElement,
  whom: readonly AskedViewer[],
): ProposedMend[] {
  const { compiled } = context;
  const closing = {
    says: `Close ${called(screen)} to ${context.names(whom)} too.`,
    does: 'closes',
  } as const;
  const own = compiled.lines(screen.id);
  const fewer = own && narrowed(context, own, whom);
  const blocked = addingLines(context, [screen], whom, 'block');
  const shown = `Show ${called(way)} to everyone who can open the screen: ${context.names(whom)}.`;
  const isHidden = compiled.lines(way.id) && whom.every((viewer) => context.isHiddenByOwnLines(viewer, way));
  return [
    ...(fewer ? [{ ...closing, to: whom, edit: editLines(screen.id, own, fewer) }] : []),
    ...(blocked ? [{ ...closing, edit: blocked }] : []),
    ...(isHidden ? followingFor(context, way, whom, { says: shown, does: 'opens' }) : []),
  ];
}
