import { applyEdit, viewerKey } from '@/core';
import { everybody, rightNow, sameAnswer, SIGNED_OUT_KEY } from '@/core/access';
import { type Edit, type EditEffect, fullName, moversOf, reachSteps } from '@/core/edit';
import { type Definition, type Id, treeOf } from '@/core/model';
import { Refused } from '../http/problem';
import { takeSteps } from '../http/progress';
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
  const affected = everybody(people.filter(({ id }) => id !== except));
  const shifts = await takeSteps(reachSteps(before, after, affected, rightNow()));
  const tree = treeOf(before);
  const { gaining, losing } = moversOf(shifts);
  const names = (keys: ReadonlySet<string>): string[] =>
    people.filter(({ id }) => keys.has(viewerKey('person', id))).map(({ name }) => name);
  return {
    gaining: names(gaining),
    losing: names(losing),
    signedOut: { gains: gaining.has(SIGNED_OUT_KEY), loses: losing.has(SIGNED_OUT_KEY) },
    elements: shifts.flatMap(({ element, groups }) => {
      if (groups.every((one) => sameAnswer(one.before, one.after))) return [];
      const found = tree.get(element);
      return found ? [fullName(found)] : [];
    }),
  };
}
