import { bind } from '../condition/bind';
import { holds } from '../condition/formula';
import type { Access } from '../access/deciding/access';
import type { KnownRecord } from '../access/sent/resolve';
import type { Definition } from '../model/definition';
import type { Line } from '../model/gate';
import type { Id } from '../model/id';
import { treeOf } from '../model/tree';

/** What a sweep has been through, and what no case has tried. */
export interface Coverage {
  /** How many requests were made again, since the connection broke or the server was away. */
  readonly askedAgain?: number;
  /** How many requests were not made, since somebody was asked the same for whom the same lines count at the same doors. */
  readonly leftOut?: number;
  readonly elements: number;
  readonly viewers: number;
  readonly records: number;
  readonly lines: number;
  /** Lines that spoke of nobody who was asked as, or whose condition never let them count. */
  readonly neverCounted: readonly PlacedLine[];
  /** Conditions that were not seen both true and not. */
  readonly oneSided: readonly (PlacedLine & { readonly seen: 'true' | 'false' | 'neither' })[];
}

interface PlacedLine {
  readonly gate: Id;
  readonly line: Id;
}

interface Seen {
  readonly gate: Id;
  readonly line: Line;
  counted: boolean;
  isTrue: boolean;
  isFalse: boolean;
}

/** Notes, viewer by viewer, which lines count and which conditions are seen both ways. */
export class CoverageNotes {
  private readonly seen: readonly Seen[];
  private viewers = 0;

  constructor(
    private readonly definition: Definition,
    private readonly records: readonly KnownRecord[],
  ) {
    this.seen = Object.entries(definition.gates).flatMap(([gate, { lines }]) =>
      lines.map((line) => ({ gate, line, counted: false, isTrue: false, isFalse: false })),
    );
  }

  add({ held, compiled }: Access): void {
    this.viewers++;
    const tree = treeOf(this.definition);
    for (const one of this.seen) {
      const { gate, line } = one;
      const element = tree.get(gate);
      if (!element || (one.counted && (!line.when || (one.isTrue && one.isFalse)))) continue;
      const speaks = held.isSpokenOf(line.who)('be true') !== false;
      if (!line.when) {
        one.counted ||= speaks;
        continue;
      }
      const scope = compiled.scope(element);
      const on = this.records.filter(({ entity }) => entity.id === scope.entity?.id);
      // What is in doubt, such as a session value that is not set, is not true.
      const formula = bind(held.facts, scope, line.when, 'be true');
      const seen = typeof formula === 'boolean' ? [formula] : on.map((record) => holds(formula, record));
      one.isTrue ||= seen.includes(true);
      one.isFalse ||= seen.includes(false);
      one.counted ||= speaks && seen.includes(true);
    }
  }

  told(): Coverage {
    return {
      elements: treeOf(this.definition).elements.length,
      viewers: this.viewers,
      records: this.records.length,
      lines: this.seen.length,
      neverCounted: this.seen
        .filter(({ counted }) => !counted)
        .map(({ gate, line }) => ({ gate, line: line.id })),
      oneSided: this.seen
        .filter(({ line, isTrue, isFalse }) => line.when !== undefined && !(isTrue && isFalse))
        .map(({ gate, line, isTrue, isFalse }) => ({
          gate,
          line: line.id,
          seen: isTrue ? 'true' : isFalse ? 'false' : 'neither',
        })),
    };
  }
}
