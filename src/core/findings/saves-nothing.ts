import { EDIT } from '../access/deciding/level';
import type { Check } from './finding';
import { addingLines } from './mends';
import { called, sentence } from './words';

/**
 * A button that saves works for people who can write no field of its screen: there is nothing that it could save.
 *
 * Has it: a screen that shows a note to clerks, with its text for reading only, and a button "Save" that is theirs.
 * Has it not: the same screen, where they may write the text.
 */
export const savesNothing: Check = {
  kind: 'saves-nothing',
  rank: 'not-meant',
  title: 'A save button without anything to save',
  *find(context) {
    const { tree } = context;
    for (const button of tree.elements) {
      if (button.kind !== 'button' || button.node.effect.do !== 'save') continue;
      const { screen } = button;
      const fields = screen ? context.partsOf(screen).filter(({ kind }) => kind === 'field') : [];
      // What a new record starts with is something, too.
      if (screen?.binds?.record === 'new' && fields.length === 0) continue;
      const whom = context
        .whoGets(button, EDIT)
        .filter((viewer) => fields.every((field) => context.most(viewer, field) < EDIT));
      if (whom.length === 0) continue;
      const names = context.names(whom);
      const edit = addingLines(context, [button], whom, 'block');
      yield {
        reason: sentence(`${names} can use ${called(button)}, but can write none of its fields.`),
        places: [button.id, ...fields.map(({ id }) => id)],
        whom,
        mends: edit ? [{ says: `Hide ${called(button)} from ${names}.`, does: 'closes', edit }] : [],
      };
    }
  },
};
