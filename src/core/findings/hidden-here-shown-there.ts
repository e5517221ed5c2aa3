import { NONE } from '../access/deciding/level';
import { editLines } from '../edit/edits/make';
import type { AppElement } from '../model/tree';
import { copied, type AskedViewer, type Context } from './context';
import type { Check, Mend } from './finding';

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
  title: 'Hidden here, shown there',
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
        reason: `${part.name} is hidden from ${context.names(whom)} on ${part.screen?.name ?? 'a screen'}, and ${shown ? `${shown.screen?.name ?? 'another screen'} shows it to them` : 'an export or the API gives it to them'}.`,
        places: [part.id, door.id, ...(shown ? [shown.id] : [])],
        whom,
        mends: mendsFor(context, part, door),
      };
    }
  },
};

function mendsFor({ compiled }: Context, part: AppElement, door: AppElement): Mend[] {
  const lines = compiled.lines(part.id) ?? [];
  const follow: Mend = {
    says: `Let ${part.name} follow here too: who sees it elsewhere sees it here.`,
    edit: { do: 'follow', gate: part.id, lines },
  };
  const field = door.kind === 'data-field' ? door.node : undefined;
  if (compiled.lines(door.id) || field?.neverFollows) return [follow];
  return [
    {
      says: `Give the field ${door.name} of the data these lines: hidden here, it is hidden everywhere.`,
      edit: editLines(door.id, undefined, copied(lines)),
    },
    follow,
  ];
}
