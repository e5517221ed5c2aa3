import type { Answer } from '@/core/access/level';
import { rightNow, SIGNED_OUT, viewerOfPerson } from '@/core/access/viewer';
import { compareReach, difference, type Affected, type Shift } from '@/core/edit/difference';
import { changeInWords, fullName } from '@/core/edit/words';
import type { EditEffect, Effect, Review } from '@/core/edit/review';
import { applyEdit } from '@/core/edit/apply';
import type { Edit } from '@/core/edit/edit';
import type { Definition } from '@/core/model/definition';
import type { Id } from '@/core/model/id';
import { treeOf } from '@/core/model/tree';
import { Refused } from '../http/problem';
import { peopleOf } from '../people/read';
import { draftOf } from './draft';
import { releasedDefinition, releaseInForce } from './release';

/** What a release of the draft would change, in words, and for whom: everybody active, and who is signed out. */
export async function review(applicationId: string): Promise<Review> {
  const [draft, inForce, people] = await Promise.all([
    draftOf(applicationId),
    releaseInForce(applicationId),
    peopleOf(applicationId),
  ]);
  const after = draft.definition;
  const before = inForce ? await releasedDefinition(applicationId, inForce.number) : { ...after, gates: {} };
  const everybody: Affected<string>[] = [
    { key: 'Signed out', viewer: SIGNED_OUT },
    ...people.filter(({ active }) => active).map((one) => ({ key: one.id, viewer: viewerOfPerson(one) })),
  ];
  const names = new Map(people.map(({ id, name }) => [id, name]));
  const shifts = new Map(
    compareReach(before, after, everybody, rightNow()).map((shift) => [shift.element, shift]),
  );
  const [old, now] = [treeOf(before), treeOf(after)];
  const effectOf = ({ element: id, groups }: Shift<string>): Effect => {
    const element = now.get(id) ?? old.get(id);
    return {
      element: id,
      name: element ? fullName(element) : id,
      kind: element?.kind ?? 'section',
      moved: groups.map((group) => ({
        before: group.before,
        after: group.after,
        names: group.who.map((key) => names.get(key) ?? key),
      })),
    };
  };
  const changes = difference(before, after).map((change) => {
    const shift = change.kind === 'role' ? undefined : shifts.get(change.element);
    return {
      ...changeInWords(change, before, after, (id) => names.get(id)),
      effect: shift && effectOf(shift),
    };
  });
  const direct = new Set(changes.map(({ effect }) => effect?.element));
  const count = (moves: (was: Answer, is: Answer) => boolean): number =>
    new Set(
      [...shifts.values()].flatMap(({ groups }) =>
        groups.filter((one) => moves(one.before, one.after)).flatMap((one) => one.who),
      ),
    ).size;
  return {
    revision: draft.revision,
    number: inForce?.number,
    changes,
    following: [...shifts.values()].filter(({ element }) => !direct.has(element)).map(effectOf),
    gaining: count((was, is) => is.most > was.most || is.least > was.least),
    losing: count((was, is) => is.most < was.most || is.least < was.least),
  };
}

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
    elements: shifts.flatMap(({ element }) => {
      const found = tree.get(element);
      return found ? [fullName(found)] : [];
    }),
  };
}
