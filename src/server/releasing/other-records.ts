import { accessOf, compile, viewerKey, viewerOfPerson } from '@/core';
import type { Circumstances, Person } from '@/core/access';
import type { OtherRecords } from '@/core/edit';
import type { Definition, Id } from '@/core/model';
import { knownRecords } from '../records/read';
import { sampleRecords } from '../records/samples';

/** So many sample records are looked at, and so many are named. */
const LOOKED_AT = 300;
const NAMED = 3;

/** So many of the people whose access changes are asked one after the other. */
const ASKED = 5;

/** Which sample records people get by the one definition and not by the other. */
export class SamplesCompared {
  private readonly people: ReadonlyMap<string, Person>;
  private readonly stored = new Map<Id, ReturnType<typeof sampleRecords>>();

  constructor(
    private readonly applicationId: string,
    private readonly before: Definition,
    private readonly after: Definition,
    people: readonly Person[],
    private readonly at: Circumstances,
  ) {
    this.people = new Map(people.map((one) => [viewerKey('person', one.id), one]));
  }

  /** Of an element: told of the first of these viewers, by their keys, who is a person and gets others. */
  async otherRecords(id: Id, keys: readonly string[]): Promise<OtherRecords | undefined> {
    const [old, now] = [compile(this.before), compile(this.after)];
    const [was, is] = [old.tree.get(id), now.tree.get(id)];
    const entity = is && now.tree.recordOf(is);
    if (!was || !is || !entity) return undefined;
    const stored = await this.storedOf(entity.id);
    for (const person of this.firstOf(keys)) {
      const viewer = viewerOfPerson(person);
      const [then, next] = [accessOf(old, viewer, this.at), accessOf(now, viewer, this.at)];
      const scope = { applicationId: this.applicationId, kind: 'sample', access: next } as const;
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

  private firstOf(keys: readonly string[]): Person[] {
    const found: Person[] = [];
    for (const key of keys) {
      const person = this.people.get(key);
      if (person && found.push(person) === ASKED) break;
    }
    return found;
  }

  private storedOf(entity: Id): ReturnType<typeof sampleRecords> {
    let stored = this.stored.get(entity);
    if (!stored) this.stored.set(entity, (stored = sampleRecords(this.applicationId, entity, LOOKED_AT)));
    return stored;
  }
}
