import { NONE } from '../access/deciding/level';
import type { AppElement } from '../model/tree';
import type { Context } from './context';
import type { Check, ProposedMend } from './finding';
import { deleting } from './mends';
import { called, sentence } from './words';

/**
 * Face that nobody sees first: to everybody who gets it, one before it is open, and is shown. They can switch to it, if
 * they know that it is there.
 *
 * Has it: a face for curators after one that is open to everyone.
 * Has it not: the face for curators before it.
 */
export const faceNeverFirst: Check = {
  kind: 'face-never-first',
  rank: 'not-meant',
  title: 'Face that nobody sees first',
  *find(context) {
    for (const screen of context.tree.elements) {
      if (screen.kind !== 'screen') continue;
      const faces = (screen.node.faces ?? []).flatMap(({ id }) => context.element(id) ?? []);
      for (const [at, face] of faces.entries()) {
        const whom = context.whoGets(face);
        const before = faces.slice(0, at);
        const never = whom.every((viewer) => before.some((one) => context.leastByOwn(viewer, one) > NONE));
        if (at === 0 || whom.length === 0 || !never) continue;
        yield {
          reason: sentence(
            `${called(face)} is never shown first, because an earlier face is open to everyone who can see it.`,
          ),
          places: [face.id, screen.id],
          whom,
          mends: [
            ...(before.every((one) => staysFirst(context, one, face)) ? [putFirst(screen, face, at)] : []),
            deleting(face),
          ],
        };
      }
    }
  },
};

/** Is the one still shown first to somebody, where the other one stands before it? */
const staysFirst = (context: Context, one: AppElement, other: AppElement): boolean =>
  context.whoGets(one).some((viewer) => context.answer(viewer, other).least === NONE);

const putFirst = (screen: AppElement, { id, name }: AppElement, at: number): ProposedMend => ({
  says: `Move ${name} to the first position.`,
  does: 'nothing',
  edit: {
    do: 'moveElement',
    id,
    from: { in: screen.id, list: 'faces', at },
    to: { in: screen.id, list: 'faces', at: 0 },
  },
});
