import { accessOf, compile, viewerOfPerson } from '@/core';
import type { Circumstances, Person } from '@/core/access';
import type { OtherRecords } from '@/core/edit';
import type { Definition, Id } from '@/core/model';
import { knownRecords } from '../records/read';
import { sampleRecords } from '../studio/samples';

/** So many sample records are looked at, and so many are named. */
const LOOKED_AT = 300;
const NAMED = 3;

/**
 * Which sample records somebody gets at an element by the one definition and not by the other: told of the first of
 * these people for whom some are others.
 */
export async function otherRecords(
  applicationId: string,
  before: Definition,
  after: Definition,
  id: Id,
  people: readonly Person[],
  at: Circumstances,
): Promise<OtherRecords | undefined> {
  const [old, now] = [compile(before), compile(after)];
  const [was, is] = [old.tree.get(id), now.tree.get(id)];
  const entity = is && now.tree.recordOf(is);
  if (!was || !is || !entity) return undefined;
  const stored = await sampleRecords(applicationId, entity.id, LOOKED_AT);
  for (const person of people) {
    const [then, next] = [old, now].map((one) => accessOf(one, viewerOfPerson(person), at));
    if (!then || !next) return undefined;
    const scope = { applicationId, kind: 'sample', access: next } as const;
    const records = await knownRecords(scope, entity, stored);
    const gained: string[] = [];
    const lost: string[] = [];
    for (const record of records) {
      const [a, b] = [then.answerOn(was, record), next.answerOn(is, record)].map(
        ({ least, most }) => least + most,
      ) as [number, number];
      const name = String(record.values[entity.labelField] ?? '');
      if (b > a) gained.push(name);
      if (b < a) lost.push(name);
    }
    if (gained.length + lost.length > 0)
      return {
        of: person.name,
        gained: gained.slice(0, NAMED),
        lost: lost.slice(0, NAMED),
        counts: { gained: gained.length, lost: lost.length, of: records.length },
      };
  }
  return undefined;
}
