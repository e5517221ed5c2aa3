import type { Answer } from '../../../access/deciding/level';
import type { Shifted, SideBySide } from './side-by-side';
import type { TouchedElement } from './touched';

/** Those whose access to an element changes in one way: a bit for each sort of viewers. */
interface Group {
  readonly before: Answer;
  readonly after: Answer;
  readonly elsewhen: boolean;
  readonly who: Uint32Array;
}

/** For each element, who gets it otherwise, and how: kept as bits, since there may be thousands of both. */
export class Shifting {
  private readonly groups: Map<string, Group>[];

  constructor(
    private readonly elements: readonly TouchedElement[],
    private readonly sorts: number,
  ) {
    this.groups = elements.map(() => new Map<string, Group>());
  }

  /** Notes that the n-th element differs for these, who are the ones from `from` on. */
  add(n: number, from: number, whom: number, by: SideBySide, elsewhen: boolean): void {
    const element = this.elements[n] as TouchedElement;
    for (let v = 0; whom !== 0 && v < 32; v++) {
      if ((whom & (1 << v)) === 0) continue;
      const who = this.groupOf(n, by.shiftOf(v, element), elsewhen);
      const sort = from + v;
      who[sort >>> 5] = (who[sort >>> 5] as number) | (1 << (sort & 31));
    }
  }

  /** Makes lists of those in each group: of the same sorts always the same list. Returns the groups of an element. */
  lists<Key>(
    listOf: (sorts: number[]) => readonly Key[],
  ): (n: number) => (Omit<Group, 'who'> & { readonly who: readonly Key[] })[] {
    const made = new Map<string, readonly Key[]>();
    return (n) =>
      [...(this.groups[n] as Map<string, Group>).values()].map(({ who, ...group }) => {
        const which = who.join(' ');
        let list = made.get(which);
        if (!list) {
          const sorts = Array.from({ length: this.sorts }, (_, sort) => sort);
          list = listOf(sorts.filter((sort) => ((who[sort >>> 5] as number) >>> (sort & 31)) & 1));
          made.set(which, list);
        }
        return { ...group, who: list };
      });
  }

  private groupOf(n: number, [before, after]: Shifted, elsewhen: boolean): Uint32Array {
    const groups = this.groups[n] as Map<string, Group>;
    const key = `${before.least}${before.most}${after.least}${after.most}${elsewhen}`;
    let group = groups.get(key);
    if (!group) {
      group = { before, after, elsewhen, who: new Uint32Array(Math.ceil(this.sorts / 32)) };
      groups.set(key, group);
    }
    return group.who;
  }
}
