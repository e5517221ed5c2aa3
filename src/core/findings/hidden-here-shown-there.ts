import { NONE } from '../access/deciding/level';
import { editLines } from '../edit/edits/make';
import { startLines } from '../edit/proposing/start';
import { gives } from '../model/gate';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check, ProposedMend } from './finding';
import { addingLines, closedTo, followingFor, narrowed } from './mends';
import { called, sentence } from './words';

/**
 * A field or column is hidden from people by lines of its own, and the same people get the same data elsewhere: on another
 * screen, in a list, by export or by the API. To hide the data, its door is the place.
 *
 * Has it: the value of an item, hidden from assistants on its screen, in a column that they see.
 * Has it not: the same lines at the field of the data.
 */
export const hiddenHereShownThere: Check = {
  kind: 'hidden-here-shown-there',
  rank: 'lets-in',
  title: 'Hidden in one place but shown in another',
  *find(context) {
    const { tree, compiled } = context;
    const comers = new Map<AppElement | undefined, readonly AskedViewer[]>();
    for (const part of tree.elements) {
      if ((part.kind !== 'field' && part.kind !== 'column') || !compiled.lines(part.id)) continue;
      // On a form for a new record there is no data yet to be hidden.
      if (part.kind === 'field' && part.screen?.binds?.record === 'new') continue;
      const door = tree.get(part.node.field);
      if (!door) continue;
      const screen = part.screen && tree.get(part.screen.id);
      const there = comers.get(screen) ?? (screen ? context.whoGets(screen) : context.viewers);
      comers.set(screen, there);
      const { container } = part;
      const whom = there.filter(
        (viewer) =>
          context.most(viewer, part) === NONE &&
          context.most(viewer, door) > NONE &&
          (!container || context.most(viewer, container) > NONE),
      );
      if (whom.length === 0) continue;
      const shown = compiled.handles
        .handlesOf(door)
        .flatMap((id) => tree.get(id) ?? [])
        .find((other) => other !== part && whom.some((viewer) => context.most(viewer, other) > NONE));
      yield {
        reason: sentence(
          `${called(part)} is hidden from ${context.names(whom)}, but ${shown ? `${called(shown)} shows it to them` : 'an export or the API sends it to them'}.`,
        ),
        places: [part.id, door.id, ...(shown ? [shown.id] : [])],
        whom,
        mends: mendsFor(context, part, door, whom),
      };
    }
  },
};

function mendsFor(
  context: Context,
  part: AppElement,
  door: AppElement,
  whom: readonly AskedViewer[],
): ProposedMend[] {
  const names = context.names(whom);
  const show = { says: `Show ${called(part)} to ${names} too.`, does: 'opens' } as const;
  const hide = { says: `Hide ${called(door)} from ${names} everywhere.`, does: 'closes' } as const;
  const lines = context.compiled.lines(part.id) ?? [];
  const isBlocked = lines.some((line) => !gives(line) && context.isSomebody(line.who, whom));
  const given = isBlocked ? undefined : addingLines(context, [part], whom, 'see');
  const blocked = closedTo(context, door, whom);
  const own = context.compiled.lines(door.id);
  const isForNobody = !own && door.kind === 'data-field' && door.node.neverFollows;
  const fewer = isForNobody
    ? undefined
    : narrowed(context, own ?? startLines(context.definition, door.id), whom);
  return [
    ...(fewer ? [{ ...hide, to: whom, edit: editLines(door.id, own, fewer) }] : []),
    ...(blocked ? [{ ...hide, edit: blocked }] : []),
    ...followingFor(context, part, whom, show),
    ...(given ? [{ ...show, edit: given }] : []),
  ];
}
