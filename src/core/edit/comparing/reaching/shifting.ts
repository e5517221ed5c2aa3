import type { Answer } from '../../../access/deciding/level';
import { hashOf, isEmpty, isSame, maskOf, membersOf, put, type Mask } from '../../../mask';
import { answersOf } from './reached';
import type { SideBySide } from './side-by-side';
import type { TouchedElements } from './touched';

/** Those whose access to an element changes in one way: a bit for each sort of viewers. */
interface Group {
  readonly before: Answer;
  readonly after: Answer;
  readonly elsewhen: boolean;
  readonly who: Mask;
}

/** For each element, who gets it otherwise, and how: kept as bits, since there may be thousands of both. */
export class Shifting {
  private readonly groups: Map<number, Group>[];

  constructor(
    private readonly elements: readonly TouchedElements[],
    private readonly sorts: number,
  ) {
    this.groups = elements.map(() => new Map<number, Group>());
  }

  /** Notes that the n-th of the elements differs for these, who are the ones from `from` on. */
  add(n: number, from: number, whom: Mask, by: SideBySide, elsewhen: boolean): void {
    if (isEmpty(whom)) return;
    const reached = by.reached(this.elements[n] as TouchedElements);
    for (const v of membersOf(whom)) put(this.groupOf(n, reached.codeOf(v), elsewhen), from + v);
  }

  /** Makes lists of those in each group: of the same sorts always the same list. Returns the groups of an element. */
  lists<Key>(
    listOf: (sorts: number[]) => readonly Key[],
  ): (n: number) => (Omit<Group, 'who'> & { readonly who: readonly Key[] })[] {
    const made = new Map<number, { who: Mask; list: readonly Key[] }[]>();
    const listOfSame = (who: Mask): readonly Key[] => {
      const hash = hashOf(who);
      const alike = made.get(hash) ?? [];
      const known = alike.find((one) => isSame(one.who, who));
      if (known) return known.list;
      const list = listOf(membersOf(who));
      made.set(hash, [...alike, { who, list }]);
      return list;
    };
    return (n) =>
      [...(this.groups[n] as Map<number, Group>).values()].map(({ who, ...group }) => ({
        ...group,
        who: listOfSame(who),
      }));
  }

  private groupOf(n: number, code: number, elsewhen: boolean): Mask {
    const groups = this.groups[n] as Map<number, Group>;
    const key = elsewhen ? ~code : code;
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { ...answersOf(code), elsewhen, who: maskOf(this.sorts) }));
    return group.who;
  }
}
