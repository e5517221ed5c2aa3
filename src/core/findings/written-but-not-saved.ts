import { EDIT, NONE } from '../access/deciding/level';
import type { Line } from '../model/gate';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check } from './finding';
import { called, sentence } from './words';

/**
 * Lines give people fields of a screen to edit, and no button that saves works for them there: the fields are for reading
 * only.
 *
 * Has it: "Clerk: edit" at the text of a note, on a screen whose button "Save" is for bosses.
 * Has it not: the same line, where the button works for clerks too.
 */
export const writtenButNotSaved: Check = {
  kind: 'written-but-not-saved',
  rank: 'not-meant',
  title: 'Fields to edit, and no way to save them',
  *find(context) {
    for (const screen of context.tree.elements) {
      if (screen.kind !== 'screen' || !screen.node.binds) continue;
      const saves = context.compiled.handles.savesOn(screen.node);
      const gated = context.partsOf(screen).some(({ id }) => context.compiled.lines(id));
      if (!gated) continue;
      const unsaving = context.kinds.filter(
        (viewer) =>
          context.most(viewer, screen) > NONE && saves.every((save) => context.most(viewer, save) < EDIT),
      );
      const given = context.partsOf(screen).flatMap((part) => {
        if (part.kind !== 'field' && part.kind !== 'section') return [];
        const whom = unsaving.filter((viewer) => isGivenEdit(context, viewer, part));
        return whom.length > 0 ? [{ part, whom }] : [];
      });
      if (given.length === 0) continue;
      const whom = unsaving.filter((viewer) => given.some((one) => one.whom.includes(viewer)));
      const lacks = saves.length === 0 ? 'no button there saves' : 'no button that saves works for them';
      yield {
        reason: sentence(
          `${context.names(whom)} are given ${given.map(({ part }) => part.name).join(', ')} to edit on ${called(screen)}, but ${lacks}.`,
        ),
        places: [screen.id, ...given.map(({ part }) => part.id), ...saves.map(({ id }) => id)],
        whom,
        mends: [],
      };
    }
  },
};

/** By a line that speaks of them in particular. */
function isGivenEdit(context: Context, viewer: AskedViewer, part: AppElement): boolean {
  const lines = context.compiled.lines(part.id) ?? [];
  const isNamed = (line: Line): boolean =>
    line.what === 'edit' && line.who.kind !== 'everyone' && context.isSomebody(line.who, [viewer]);
  return (
    lines.some(isNamed) && context.most(viewer, part) > NONE && context.mostByGate(viewer, part) === EDIT
  );
}
