import type { Who } from '../../model/gate';
import type { AppElement } from '../../model/tree';
import { type Access, accessOf } from '../deciding/access';
import type { Compiled } from '../deciding/compile';
import { EDIT, NONE, SEE, seenOf, type Answer } from '../deciding/level';
import { counts, type Circumstances } from '../deciding/viewer';
import { readViewerKey } from '../deciding/viewer-key';
import type { PeopleGroup } from './alike';
import { matrixOf, unpacked } from './cells';

/** How many of the people of a kind get an element at all to edit, and how many to see only. */
export interface Among {
  readonly edit: number;
  readonly see: number;
  readonly of: number;
}

/** A person of a kind who gets something, and one who does not (or less): to look as. */
export interface OneOfEach {
  readonly most: Named;
  readonly least: Named;
}

type Named = PeopleGroup['some'][number];

/**
 * The numbers of real people, worked out in one place for all who show them. The people of a role are those to whom
 * it is given at this moment; of a group, who is in it; of the login state, everybody who may sign in.
 *
 * @example
 * const ines = { id: 'p1', name: 'Ines', active: true, assignments: [{ role: 'lender' }], attributes: {} };
 * const numbers = new Numbers(compile(LARKFIELD), groupSimilarPeople(LARKFIELD, [ines], at), at);
 * numbers.countOf('role:lender') // → 1
 * numbers.among('role:curator', compile(LARKFIELD).tree.need('s_items', 'screen')) // → undefined
 */
export class Numbers {
  private readonly known = new Map<string, readonly PeopleGroup[]>();
  private whole: Numbers | undefined;
  private readonly accesses = new Map<PeopleGroup, Access>();
  /** The answers of all of them for all elements, and by whom where each row begins; made for who asks of everything. */
  private readonly matrix:
    { readonly answers: Uint8Array; readonly rows: ReadonlyMap<PeopleGroup, number> } | undefined;

  /**
   * `people`: everybody, by what the definition asks of them (`alike`). `of`: whether some elements will be asked for, or
   * all of them, so that everything is worked out at once.
   */
  constructor(
    private readonly compiled: Compiled,
    private readonly people: readonly PeopleGroup[],
    private readonly at: Circumstances,
    of: 'some' | 'all' = 'some',
  ) {
    if (of === 'some') return;
    const viewers = people.map(({ viewer }) => viewer);
    const width = compiled.tree.elements.length;
    this.matrix = {
      answers: matrixOf(compiled, viewers, at),
      rows: new Map(people.map((one, n) => [one, n * width])),
    };
  }

  /** The same, with everything worked out at once: for who will ask for all elements. */
  forAll(): Numbers {
    return (this.whole ??= this.matrix ? this : new Numbers(this.compiled, this.people, this.at, 'all'));
  }

  /** How many people there are of a kind of viewer, by its key. Nobody, for any other key. */
  countOf(key: string): number {
    return sum(this.peopleOf(key));
  }

  /** How many of a kind's people get the element; undefined where the kind has no people. */
  among(key: string, element: AppElement): Among | undefined {
    const people = this.peopleOf(key);
    if (people.length === 0) return undefined;
    let [edit, see] = [0, 0];
    for (const one of people) {
      const { most } = seenOf(element.kind, this.answerOf(one, element));
      if (most === EDIT) edit += one.count;
      else if (most === SEE) see += one.count;
    }
    return { edit, see, of: sum(people) };
  }

  /** Two of a kind's people between whom it differs; undefined where all get the same. */
  oneOfEach(key: string, element: AppElement): OneOfEach | undefined {
    const level = (one: PeopleGroup): number => {
      const { least, most } = this.answerOf(one, element);
      return most * 3 + least;
    };
    const people = [...this.peopleOf(key)].sort((a, b) => level(b) - level(a));
    const [first, last] = [people[0], people.at(-1)];
    const [most, least] = [first?.some[0], last?.some[0]];
    return first && last && most && least && level(first) > level(last) ? { most, least } : undefined;
  }

  private peopleOf(key: string): readonly PeopleGroup[] {
    let found = this.known.get(key);
    if (!found) this.known.set(key, (found = this.find(key)));
    return found;
  }

  private find(key: string): readonly PeopleGroup[] {
    const read = readViewerKey(key);
    if (read?.kind === 'signed-in') return this.people;
    if (read?.kind === 'role')
      return this.people.filter(
        ({ viewer }) =>
          viewer.kind === 'signed-in' &&
          viewer.assignments.some((one) => one.role === read.id && counts(one, this.at.moment)),
      );
    if (read?.kind !== 'group') return [];
    const who: Who = { kind: 'group', group: read.id };
    return this.people.filter((one) => this.accessOf(one).held.isSpokenOf(who)('be true') === true);
  }

  private answerOf(one: PeopleGroup, element: AppElement): Answer {
    const { matrix } = this;
    if (!matrix) return this.accessOf(one).answer(element);
    return unpacked(matrix.answers[(matrix.rows.get(one) as number) + element.number] as number);
  }

  private accessOf(one: PeopleGroup): Access {
    let access = this.accesses.get(one);
    if (!access) this.accesses.set(one, (access = accessOf(this.compiled, one.viewer, this.at)));
    return access;
  }
}

const sum = (people: readonly PeopleGroup[]): number => people.reduce((all, { count }) => all + count, 0);

/** Do all of them get the same? Then their kind's own answer says it. */
export const allAlike = ({ edit, see, of }: Among): boolean =>
  edit === of || see === of || edit + see === NONE;
