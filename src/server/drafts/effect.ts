import { applyEdit, viewerKey } from '@/core';
import { everybody, kindsOf, rightNow, sameAnswer, SIGNED_OUT_KEY, type Viewer } from '@/core/access';
import { type EditEffect, fullName, viewersAffected, reachSteps } from '@/core/edit';
import { type Definition, sameJson, treeOf } from '@/core/model';
import { editToTrySchema } from '@/contract/schemas/draft';
import { Refused } from '../http/problem';
import { parseBody } from '../http/body';
import { type Run, takeSteps } from '../http/progress';
import { peopleCounted } from '../people/read';
import { draftOf } from './draft';

/** Who would gain and who would lose by an edit of the draft, as it was sent; it is not made. */
export async function effectOfSent(applicationId: string, body: string, run?: Run): Promise<EditEffect> {
  const { edit } = parseBody(body, editToTrySchema);
  const { definition } = await draftOf(applicationId);
  const made = applyEdit(definition, edit);
  if (!made.ok)
    throw new Refused(
      409,
      'changed-meanwhile',
      made.problems[0]?.message ?? 'This change cannot be applied to the current draft.',
      {
        problems: made.problems,
      },
    );
  return effectOf(applicationId, definition, made.value, undefined, run);
}

/** Who gains and who loses between two definitions, but for the viewer `except`. */
export async function effectOf(
  applicationId: string,
  before: Definition,
  after: Definition,
  except?: Viewer,
  { tell, signal }: Partial<Run> = {},
): Promise<EditEffect> {
  const people = await peopleCounted(applicationId);
  const at = rightNow();
  const self = except?.kind === 'signed-in' ? except.person : undefined;
  const affected = everybody(people.filter(({ id }) => id !== self));
  const shifts = await takeSteps(reachSteps(before, after, affected, at), tell, signal);
  const kinds = kindsOf(after).filter(
    ({ key, viewer }) => key !== SIGNED_OUT_KEY && !(except && sameJson(viewer, except)),
  );
  const ofKinds = viewersAffected(await takeSteps(reachSteps(before, after, kinds, at), tell, signal));
  const called = (keys: ReadonlySet<string>): string[] =>
    kinds.filter(({ key }) => keys.has(key)).map(({ name }) => name);
  const tree = treeOf(before);
  const { gaining, losing } = viewersAffected(shifts);
  const names = (keys: ReadonlySet<string>): string[] =>
    people.filter(({ id }) => keys.has(viewerKey('person', id))).map(({ name }) => name);
  return {
    gaining: names(gaining),
    losing: names(losing),
    signedOut: { gains: gaining.has(SIGNED_OUT_KEY), loses: losing.has(SIGNED_OUT_KEY) },
    kinds: { gaining: called(ofKinds.gaining), losing: called(ofKinds.losing) },
    elements: shifts.flatMap(({ element, groups }) => {
      if (groups.every((one) => sameAnswer(one.before, one.after))) return [];
      const found = tree.get(element);
      return found ? [fullName(found)] : [];
    }),
  };
}
