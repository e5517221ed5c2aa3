import { compile } from '../access/deciding/compile';
import { EDIT, type Level, NONE, SEE } from '../access/deciding/level';
import { matrixOf, unpacked } from '../access/questions/cells';
import { editLines } from '../edit/edits/make';
import { startLines } from '../edit/proposing/start';
import type { Definition } from '../model/definition';
import { isDataDoor, type AppElement } from '../model/tree';
import type { Check } from './finding';
import { following } from './mends';
import { called, sentence } from './words';

/**
 * Records, a field or an action are open by lines of their own to people to whom no screen shows them: nobody sees it by
 * clicking, and an export, a change of many at once or the API gives it.
 *
 * Has it: "Signed in: see" at the records of loans, whose screens are open to registrars only.
 * Has it not: records that follow the screens; lines that give no more than these do.
 */
export const widerThanScreens: Check = {
  kind: 'wider-than-screens',
  rank: 'lets-in',
  title: 'More access than the screens show',
  *find(context) {
    const { tree, definition, viewers } = context;
    const doors = tree.elements.filter((one) => canFollow(one) && context.compiled.lines(one.id));
    if (doors.length === 0) return;
    const asShown = compile(allFollowing(definition, doors));
    const at = { moment: context.moment, whenever: true };
    const shown = matrixOf(
      asShown,
      viewers.map(({ viewer }) => viewer),
      at,
    );
    const width = asShown.tree.elements.length;
    for (const door of doors) {
      const whom = viewers.filter(
        (viewer) =>
          context.most(viewer, door) >= counting(door) &&
          unpacked(shown[viewer.row * width + door.number] ?? 0).most === NONE,
      );
      if (whom.length === 0) continue;
      const lines = context.compiled.lines(door.id) ?? [];
      const says = `Open ${called(door)} only as far as the screens do.`;
      yield {
        reason: sentence(
          `${called(door)} ${door.kind === 'rows' ? 'are' : 'is'} open to ${context.names(whom)}, although no screen shows ${door.kind === 'rows' ? 'them' : 'it'} to them.`,
        ),
        places: [door.id],
        whom,
        mends: [
          following(context, door, { says, does: 'closes' }),
          { says, does: 'closes', edit: editLines(door.id, lines, startLines(definition, door.id)) },
        ],
      };
    }
  },
};

/** From which level on it is something: an action that is only seen is not done. */
const counting = (door: AppElement): Level => (door.kind === 'action' ? EDIT : SEE);

const canFollow = (one: AppElement): boolean =>
  isDataDoor(one) && !(one.kind === 'data-field' && one.node.neverFollows);

/** The definition in which these doors follow the screens. */
function allFollowing(definition: Definition, doors: readonly AppElement[]): Definition {
  const without = new Set(doors.map(({ id }) => id));
  return {
    ...definition,
    gates: Object.fromEntries(Object.entries(definition.gates).filter(([id]) => !without.has(id))),
  };
}
