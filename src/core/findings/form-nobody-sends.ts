import { EDIT } from '../access/deciding/level';
import type { Check } from './finding';
import { called, sentence } from './words';

/**
 * A form for a new record opens for people for whom no button on it saves: what they write is lost.
 *
 * Has it: a form for a new loan without a button that saves, or with one for registrars only, open to assistants.
 * Has it not: the same form, open to registrars only.
 */
export const formNobodySends: Check = {
  kind: 'form-nobody-sends',
  rank: 'not-meant',
  title: 'Form that cannot be submitted',
  *find(context) {
    for (const screen of context.tree.elements) {
      if (screen.kind !== 'screen' || screen.node.binds?.record !== 'new') continue;
      const saves = context.compiled.handles.savesOn(screen.node);
      const whom = context
        .whoGets(screen)
        .filter((viewer) => saves.every((save) => context.most(viewer, save) < EDIT));
      if (whom.length === 0) continue;
      const lacks = saves.length === 0 ? 'it has no save button' : 'they cannot use its save button';
      yield {
        reason: sentence(`${context.names(whom)} can open ${called(screen)}, but ${lacks}.`),
        places: [screen.id, ...saves.map(({ id }) => id)],
        whom,
        // Who is to send it is the builder's to say.
        mends: [],
      };
    }
  },
};
