import { difference, viewerOfPerson } from '@/core';
import {
  dependsOnTime,
  type Circumstances,
  everybody,
  Grants,
  type Person,
  rightNow,
  SIGNED_OUT_KEY,
} from '@/core/access';
import type { Condition } from '@/core/condition';
import {
  causesOf,
  type Change,
  changeInWords,
  directionOf,
  type Effect,
  type Following,
  fullName,
  viewersAffected,
  opensOf,
  type Power,
  powerOf,
  reachSteps,
  type Review,
  type AccessDifference,
} from '@/core/edit';
import { type Definition, type Id, treeOf } from '@/core/model';
import { type Run, takeSteps } from '../http/progress';
import { peopleCounted } from '../people/read';
import { dataChanges } from '../drafts/data-changes';
import { draftOf } from '../drafts/draft';
import { releasedDefinition, releaseInForce } from '../releases';
import { SamplesCompared } from './other-records';

/** What a release of the draft would change, in words, and for whom: everybody active, and who is signed out. */
export async function review(applicationId: string, { tell, signal }: Partial<Run> = {}): Promise<Review> {
  const [draft, inForce, everyone] = await Promise.all([
    draftOf(applicationId),
    releaseInForce(applicationId),
    peopleCounted(applicationId),
  ]);
  const after = draft.definition;
  const before = inForce
    ? await releasedDefinition(applicationId, inForce.number)
    : { ...after, gates: { [after.id]: { lines: [] } } };
  const people = everyone.filter(({ active }) => active);
  const names = new Map(everyone.map(({ id, name }) => [id, name]));
  const at = rightNow();
  const affected = everybody(people);
  const shifts = await takeSteps(reachSteps(before, after, affected, at), tell, signal);
  const bySelf = new Map(shifts.map((shift) => [shift.element, shift]));
  const keyed = new Map(affected.map(({ key, name }) => [key, name]));
  const effects = new Effects(
    before,
    after,
    keyed,
    new SamplesCompared(applicationId, before, after, people, at),
  );
  const differing = difference(before, after);
  const elements = new Set(differing.flatMap((one) => ('element' in one ? [one.element] : [])));
  const causeOf = causesOf(before, after, elements);
  const following = new Map<Id | undefined, Effect[]>();
  for (const shift of shifts) {
    if (elements.has(shift.element)) continue;
    const cause = causeOf(shift.element);
    following.set(cause, [...(following.get(cause) ?? []), effects.of(shift)]);
  }
  const changes: Review['changes'][number][] = [];
  const told = new Set<Id>();
  let thing = '';
  for (const change of differing) {
    const { about, done } = changeInWords(change, before, after, (id) => names.get(id));
    const last = changes.at(-1);
    // Several differences of one thing are told together.
    const same = thing === thingOf(change) && last?.about === about;
    thing = thingOf(change);
    if (same) changes[changes.length - 1] = { ...last, done: [...last.done, ...done] };
    else {
      const id = 'element' in change && !told.has(change.element) ? change.element : undefined;
      if (id !== undefined) told.add(id);
      const shift = id === undefined ? undefined : bySelf.get(id);
      changes.push({
        about,
        done,
        effect: shift && (await effects.withRecords(shift)),
        asksWhen: conditionsIn(change).some((one) =>
          [before, after].some((side) => dependsOnTime(side, one)),
        ),
        following: id === undefined ? [] : grouped(following.get(id) ?? []),
      });
    }
  }
  const { gaining, losing, all } = viewersAffected(shifts);
  const others = [...all].filter((key) => !gaining.has(key) && !losing.has(key));
  return {
    revision: draft.revision,
    name: after.name,
    number: inForce?.number,
    opens: opensOf(before, after, shifts, at).map(({ people: who, ...one }) => ({
      ...one,
      ...firstOf([...who].filter((key) => key !== SIGNED_OUT_KEY).map((key) => keyed.get(key) ?? key)),
    })),
    power: [
      ...powerOf(before, after).map((one) => withHolders(one, after, people, at)),
      ...groupsByTheirPeople(before, after, people, at),
    ],
    changes,
    data: inForce ? await dataChanges({ applicationId, kind: 'live' }, before, after) : [],
    following: grouped(following.get(undefined) ?? []),
    gaining: gaining.size,
    losing: losing.size,
    others: others.length,
  };
}

/** What a difference is of: several of one thing are told together, those of two that are called the same are not. */
const thingOf = (change: Change): string =>
  'element' in change ? change.element : 'id' in change ? `${change.list} ${change.id}` : change.kind;

/** The conditions that a change speaks of: of lines and their groups, and of a group or a named condition. */
function conditionsIn(change: Change): Condition[] {
  if (change.kind === 'gate')
    return [...(change.before ?? []), ...(change.after ?? [])].flatMap(({ who, when }) => [
      ...(when ? [when] : []),
      ...(who.kind === 'group' ? [{ inGroup: who.group }] : []),
    ]);
  if (change.kind !== 'named') return [];
  return [change.before, change.after].flatMap((side) => (side && 'condition' in side ? side.condition : []));
}

/** So many people are named wherever people are; the others are counted. */
const MOST_NAMED = 30;

/** The first of these names, and how many others there are. */
const firstOf = (names: readonly string[]): { readonly names: readonly string[]; readonly more: number } => ({
  names: names.slice(0, MOST_NAMED),
  more: Math.max(0, names.length - MOST_NAMED),
});

/** Shifts with names; how people's records differ is found out only where it is told. */
class Effects {
  /** Of the same people it is the same list. */
  private readonly named = new Map<readonly string[], ReturnType<typeof firstOf>>();

  constructor(
    private readonly before: Definition,
    private readonly after: Definition,
    /** By the viewer's key. */
    private readonly names: ReadonlyMap<string, string>,
    private readonly samples: SamplesCompared,
  ) {}

  of({ element: id, groups }: AccessDifference<string>): Effect {
    const element = treeOf(this.after).get(id) ?? treeOf(this.before).get(id);
    return {
      element: id,
      name: element ? fullName(element) : id,
      kind: element?.kind ?? 'section',
      moved: groups.map(({ before, after, who, elsewhen }) => ({
        before,
        after,
        elsewhen,
        ...this.namesOf(who),
      })),
    };
  }

  private namesOf(who: readonly string[]): ReturnType<typeof firstOf> {
    let named = this.named.get(who);
    if (!named) this.named.set(who, (named = firstOf(who.map((key) => this.names.get(key) ?? key))));
    return named;
  }

  async withRecords(shift: AccessDifference<string>): Promise<Effect> {
    const effect = this.of(shift);
    const moved = await Promise.all(
      effect.moved.map(async (one, n) => {
        const { before, after, who, elsewhen } = shift.groups[
          n
        ] as AccessDifference<string>['groups'][number];
        const depends = before.least < before.most || after.least < after.most;
        if (!depends || elsewhen) return one;
        return { ...one, records: await this.samples.otherRecords(shift.element, who) };
      }),
    );
    return { ...effect, moved };
  }
}

/** The same people, moved the same way, at many elements: one entry. */
function grouped(effects: readonly Effect[]): Following[] {
  const found: (Following & { readonly elements: string[] })[] = [];
  const byNames = new Map<readonly string[], typeof found>();
  for (const { name, moved } of effects)
    for (const one of moved) {
      const { names, more } = one;
      const direction = directionOf(one);
      const groups = byNames.get(names) ?? [];
      byNames.set(names, groups);
      const group = groups.find((each) => each.direction === direction);
      if (group) group.elements.push(name);
      else {
        const made = { direction, names, more, elements: [name] };
        groups.push(made);
        found.push(made);
      }
    }
  return found;
}

function withHolders(
  { about, said, holders }: Power,
  after: Definition,
  people: readonly Person[],
  at: Circumstances,
): Review['power'][number] {
  if (!holders) return { about, said };
  const holds = (person: Person): boolean => {
    const held = new Grants(after, viewerOfPerson(person), at);
    return 'role' in holders ? held.roles.has(holders.role) : held.privileges.has(holders.privilege);
  };
  return { about, said, ...firstOf(people.filter(holds).map(({ name }) => name)) };
}

/** Groups that have other people than before. */
function groupsByTheirPeople(
  before: Definition,
  after: Definition,
  people: readonly Person[],
  at: Circumstances,
): Review['power'][number][] {
  const heldIn = (definition: Definition) =>
    people.map((person) => ({ person, held: new Grants(definition, viewerOfPerson(person), at) }));
  const sides = [before, after].map((definition) => ({ definition, everyone: heldIn(definition) }));
  const inGroup = (group: Id): Set<Person>[] =>
    sides.map(({ definition, everyone }) => {
      if (!definition.groups.some(({ id }) => id === group)) return new Set();
      const isIn = (held: Grants): boolean => held.isSpokenOf({ kind: 'group', group })('be true') === true;
      return new Set(everyone.flatMap(({ person, held }) => (isIn(held) ? [person] : [])));
    });
  return after.groups.flatMap(({ id, name }) => {
    const [was = new Set<Person>(), is = new Set<Person>()] = inGroup(id);
    const [come, gone] = [[...is].filter((one) => !was.has(one)), [...was].filter((one) => !is.has(one))];
    const said = (words: string, some: readonly Person[]): Review['power'][number][] =>
      some.length === 0
        ? []
        : [{ about: `Group ${name}`, said: words, ...firstOf(some.map((one) => one.name)) }];
    return [
      ...said('These people will be in the group.', come),
      ...said('These people will no longer be in the group.', gone),
    ];
  });
}
