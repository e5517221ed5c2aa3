import { sameAnswer, type Answer } from '@/core/access/level';
import { rightNow, SIGNED_OUT, viewerOfPerson } from '@/core/access/viewer';
import { applyEdit } from '@/core/edit/apply';
import type { Edit } from '@/core/edit/edit';
import type { EditEffect } from '@/core/edit/review';
import { compareReach, type Affected } from '@/core/edit/shifts';
import { fullName } from '@/core/edit/words';
import type { Definition } from '@/core/model/definition';
import type { Id } from '@/core/model/id';
import { treeOf } from '@/core/model/tree';
import { Refused } from '../http/problem';
import { peopleOf } from '../people/read';
import { draftOf } from './draft';

/** Who would gain and who would lose by an edit of the draft, which is not made. */
export async function effectOfEdit(applicationId: string, edit: Edit): Promise<EditEffect> {
  const { definition } = await draftOf(applicationId);
  const made = applyEdit(definition, edit);
  if (!made.ok)
    throw new Refused(409, 'changed-meanwhile', made.problems[0]?.message ?? 'It does not apply.', {
      problems: made.problems,
    });
  return effectOf(applicationId, definition, made.value);
}

/** Who gains and who loses between two definitions, but for the person `except`. */
export async function effectOf(
  applicationId: string,
  before: Definition,
  after: Definition,
  except?: Id,
): Promise<EditEffect> {
  const people = await peopleOf(applicationId);
  const everybody: Affected<Id | undefined>[] = [
    { key: undefined, viewer: SIGNED_OUT },
    ...people
      .filter((one) => one.active && one.id !== except)
      .map((one) => ({ key: one.id, viewer: viewerOfPerson(one) })),
  ];
  const shifts = compareReach(before, after, everybody, rightNow());
  const tree = treeOf(before);
  const who = (moves: (was: Answer, is: Answer) => boolean): Set<Id | undefined> =>
    new Set(
      shifts.flatMap(({ groups }) =>
        groups.filter((one) => moves(one.before, one.after)).flatMap((one) => one.who),
      ),
    );
  const gaining = who((was, is) => is.most > was.most || is.least > was.least);
  const losing = who((was, is) => is.most < was.most || is.least < was.least);
  const names = (ids: Set<Id | undefined>): string[] =>
    people.filter(({ id }) => ids.has(id)).map(({ name }) => name);
  return {
    gaining: names(gaining),
    losing: names(losing),
    signedOut: { gains: gaining.has(undefined), loses: losing.has(undefined) },
    elements: shifts.flatMap(({ element, groups }) => {
      if (groups.every((one) => sameAnswer(one.before, one.after))) return [];
      const found = tree.get(element);
      return found ? [fullName(found)] : [];
    }),
  };
}
