import { applyEdit } from '../edit/edits/apply';
import type { Edit } from '../edit/edits/edit';
import { compareReach } from '../edit/comparing/shifts';
import { gives, sameWho } from '../model/gate';
import { isDataDoor } from '../model/tree';
import { sameAnswer } from '../access/deciding/level';
import type { Context } from './context';
import { keysOf, type Does, type ProposedMend } from './finding';
import { editOfMend } from './mends';

/**
 * Does a mend what its sentence says, and no more? One that closes gives nobody more, one that opens takes from nobody,
 * one that says neither changes nobody's access, and nobody is touched whom the sentence does not name. It is tried: who
 * gets what is compared with what they would get, at other times too. In doubt, it does not.
 */
export function keepsPromise(context: Context, mend: ProposedMend): boolean {
  const { definition, moment } = context;
  const edit = editOfMend(definition, mend);
  if (!edit) return false;
  const surely = surelyDoes(context, edit) === mend.does;
  if (surely && !mend.to) return true;
  const made = applyEdit(definition, edit);
  if (!made.ok) return false;
  const named = mend.to && new Set(keysOf(mend.to));
  return compareReach(definition, made.value, context.viewers, { moment }).every(({ groups }) =>
    groups.every(({ before, after, who }) => {
      if (mend.does === 'nothing' || !(named === undefined || who.every((key) => named.has(key))))
        return false;
      // The same least and most on other records: whether these are more or fewer is not known.
      if (sameAnswer(before, after)) return surely;
      const [less, more] = mend.does === 'closes' ? [after, before] : [before, after];
      return less.least <= more.least && less.most <= more.most;
    }),
  );
}

/** What an edit does to access whoever looks: told where the way of deciding alone makes it sure. */
function surelyDoes(context: Context, edit: Edit): Does | undefined {
  switch (edit.do) {
    case 'addLine':
      return gives(edit.line) ? 'opens' : 'closes';
    case 'removeLine':
      return gives(edit.line) ? 'closes' : 'opens';
    case 'changeLine': {
      const { from, to } = edit;
      const isAlways = sameWho(from.who, to.who) && from.what === to.what && !to.when;
      return isAlways ? (gives(to) ? 'opens' : 'closes') : undefined;
    }
    case 'startLines': {
      // A follower that is given "everyone: edit" and nothing but lines that take away.
      const element = context.element(edit.gate);
      const [first, ...rest] = edit.lines;
      const isAsBefore = first?.who.kind === 'everyone' && first.what === 'edit' && !first.when;
      return element && !isDataDoor(element) && isAsBefore && rest.every((line) => !gives(line))
        ? 'closes'
        : undefined;
    }
    case 'together': {
      const [first, ...rest] = edit.edits.map((one) => surelyDoes(context, one));
      return rest.every((one) => one === first) ? first : undefined;
    }
    default:
      return undefined;
  }
}
