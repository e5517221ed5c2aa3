import type { Id } from '../../model/id';
import type { AppElement } from '../../model/tree';
import { type Access, accessOf } from '../deciding/access';
import type { Compiled } from '../deciding/compile';
import { EDIT, NONE, SEE, seenOf } from '../deciding/level';
import { counts, viewerOfPerson, type Circumstances, type Person } from '../deciding/viewer';
import { readViewerKey } from '../deciding/viewer-key';

/** How many of the people of a kind get an element at all to edit, and how many to see only. */
export interface Among {
  readonly edit: number;
  readonly see: number;
  readonly of: number;
}

/** A person of a kind who gets something, and one who does not (or less): to look as. */
export interface OneOfEach {
  readonly most: Id;
  readonly least: Id;
}

/**
 * The numbers of real people, worked out in one place for all who show them. The people of a role are those to whom
 * it is given at this moment; of a group, who is in it; of the login state, everybody who may sign in.
 *
 * @example
 * const ines = { id: 'p1', name: 'Ines', active: true, assignments: [{ role: 'lender' }], attributes: {} };
 * const numbers = new Numbers(compile(LARKFIELD), [ines], at);
 * numbers.peopleOf('role:lender').length // → 1
 * numbers.among('role:curator', compile(LARKFIELD).tree.need('s_items', 'screen')) // → undefined
 */
export class Numbers {
  private readonly people: readonly Person[];
  private readonly known = new Map<string, readonly Person[]>();
  private givenTo: ReadonlyMap<Id, readonly Person[]> | undefined;
  private readonly accesses = new Map<Person, Access>();
  /** Those who are alike are decided once. */
  private readonly alike = new Map<string, Access>();

  constructor(
    private readonly compiled: Compiled,
    people: readonly Person[],
    private readonly at: Circumstances,
  ) {
    this.people = people.filter(({ active }) => active);
  }

  /** The people of a kind of viewer, by its key. Nobody, for any other key. */
  peopleOf(key: string): readonly Person[] {
    let found = this.known.get(key);
    if (!found) this.known.set(key, (found = this.find(key)));
    return found;
  }

  /** How many of a kind's people get the element; undefined where the kind has no people. */
  among(key: string, element: AppElement): Among | undefined {
    const people = this.peopleOf(key);
    if (people.length === 0) return undefined;
    const alike = new Map<Access, number>();
    for (const one of people) {
      const access = this.accessOf(one);
      alike.set(access, (alike.get(access) ?? 0) + 1);
    }
    let [edit, see] = [0, 0];
    for (const [access, of] of alike) {
      const { most } = seenOf(element.kind, access.answer(element));
      if (most === EDIT) edit += of;
      else if (most === SEE) see += of;
    }
    return { edit, see, of: people.length };
  }

  /** Two of a kind's people between whom it differs; undefined where all get the same. */
  oneOfEach(key: string, element: AppElement): OneOfEach | undefined {
    const level = (one: Person): number => {
      const { least, most } = this.accessOf(one).answer(element);
      return most * 3 + least;
    };
    const people = [...this.peopleOf(key)].sort((a, b) => level(b) - level(a));
    const [first, last] = [people[0], people.at(-1)];
    return first && last && level(first) > level(last) ? { most: first.id, least: last.id } : undefined;
  }

  private find(key: string): readonly Person[] {
    const read = readViewerKey(key);
    if (read?.kind === 'signed-in') return this.people;
    if (read?.kind === 'role') return (this.givenTo ??= this.byRole()).get(read.id) ?? [];
    if (read?.kind !== 'group') return [];
    // Those who are alike in what lines ask may differ in what only this group asks.
    const isIn = (one: Person): boolean =>
      accessOf(this.compiled, viewerOfPerson(one), this.at).held.isSpokenOf({
        kind: 'group',
        group: read.id,
      })('be true') === true;
    return this.people.filter(isIn);
  }

  private byRole(): ReadonlyMap<Id, readonly Person[]> {
    const found = new Map<Id, Set<Person>>();
    for (const person of this.people)
      for (const one of person.assignments)
        if (counts(one, this.at.moment))
          found.set(one.role, (found.get(one.role) ?? new Set<Person>()).add(person));
    return new Map([...found].map(([role, people]) => [role, [...people]]));
  }

  private accessOf(person: Person): Access {
    let access = this.accesses.get(person);
    if (!access) {
      const viewer = viewerOfPerson(person);
      const key = this.compiled.keyOf(viewer, this.at);
      access = this.alike.get(key) ?? accessOf(this.compiled, viewer, this.at);
      this.alike.set(key, access);
      this.accesses.set(person, access);
    }
    return access;
  }
}

/** Do all of them get the same? Then their kind's own answer says it. */
export const allAlike = ({ edit, see, of }: Among): boolean =>
  edit === of || see === of || edit + see === NONE;
