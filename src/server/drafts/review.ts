import type { Answer } from '@/core/access/level';
import { rightNow, SIGNED_OUT, viewerOfPerson } from '@/core/access/viewer';
import { compareReach, difference, type Affected, type Shift } from '@/core/edit/difference';
import { changeInWords, fullName } from '@/core/edit/words';
import type { Effect, Review } from '@/core/edit/review';
import { Tree } from '@/core/model/tree';
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
  const [old, now] = [new Tree(before), new Tree(after)];
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
