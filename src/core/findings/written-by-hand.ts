import { EDIT } from '../access/deciding/level';
import { editLines, newLine } from '../edit/edits/make';
import type { Edit } from '../edit/edits/edit';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check, ProposedMend } from './finding';
import { called, sentence } from './words';

/**
 * People may write a field by hand that an action sets, and get the action not at all, or only under a condition: what the
 * action is meant to see to, they can pass by.
 *
 * Has it: "Approve" sets the status and is given while it is asked; registrars may choose Approved on the screen, always.
 * Has it not: the same action, with a status that is for reading there.
 */
export const writtenByHand: Check = {
  kind: 'written-by-hand',
  rank: 'not-meant',
  title: 'Written around a narrower action',
  *find(context) {
    const { tree } = context;
    for (const field of tree.elements) {
      if (field.kind !== 'data-field') continue;
      const entity = tree.entityOf(field.id);
      const writers = context.whoGets(field, EDIT);
      const passed = (entity?.actions ?? []).flatMap((node) => {
        if (node.kind !== 'named' || !Object.hasOwn(node.sets, field.id)) return [];
        const action = tree.need(node.id, 'action');
        // An action that nobody gets is another finding.
        if (context.whoGets(action, EDIT).length === 0) return [];
        const whom = writers.filter((viewer) => isNarrower(context, viewer, action, field));
        return whom.length === 0 ? [] : [{ action, whom }];
      });
      if (passed.length === 0) continue;
      const whom = writers.filter((viewer) => passed.some((one) => one.whom.includes(viewer)));
      const names = passed.map(({ action }) => `“${action.name}”`).join(' and ');
      yield {
        reason: sentence(
          `${context.names(whom)} can write ${called(field)} by hand, although ${names} ${passed.length === 1 ? 'sets it and is' : 'set it and are'} given more narrowly.`,
        ),
        places: [field.id, ...passed.map(({ action }) => action.id)],
        whom,
        mends: mendsFor(context, field),
      };
    }
  },
};

/** Does the viewer get the action on fewer records than they may write the field on, as far as that is known? */
function isNarrower(context: Context, viewer: AskedViewer, action: AppElement, field: AppElement): boolean {
  if (context.most(viewer, action) < EDIT) return true;
  return context.answer(viewer, action).least < EDIT && context.answer(viewer, field).least === EDIT;
}

/** Nobody writes it by hand any more, on any screen for a record that there is; what actions set stays as it is. */
function mendsFor({ compiled, tree }: Context, field: AppElement): ProposedMend[] {
  const gates = compiled.lines(field.id)
    ? [field]
    : compiled.handles
        .handlesOf(field)
        .flatMap((id) => tree.get(id) ?? [])
        .filter((one) => one.kind === 'field' && one.screen?.binds?.record === 'existing');
  const edits = gates.map((gate): Edit => {
    const before = compiled.lines(gate.id);
    const around = before ?? [newLine({ kind: 'everyone' }, 'edit')];
    return editLines(gate.id, before, [...around, newLine({ kind: 'everyone' }, 'at-most-see')]);
  });
  const [first] = edits;
  if (!first) return [];
  return [
    {
      says: `Make ${called(field)} read-only for everyone wherever a record shows it, so that only actions set it.`,
      does: 'closes',
      edit: edits.length === 1 ? first : { do: 'together', edits },
    },
  ];
}
