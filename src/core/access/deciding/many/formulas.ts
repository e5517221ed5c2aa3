import type { Formula } from '../../../condition/formula';
import type { Algebra } from '../lines';

/** The numbers of the formulas that hold for no record, and for each: all others ask for the record. */
export const NEVER = 0;
export const ALWAYS = 1;

/** A formula's parts, by their numbers; of a question there are none. */
interface Node {
  readonly how: 'all' | 'any' | 'question';
  readonly parts: readonly number[];
}

/**
 * Formulas of many viewers by number: two of one viewer have the same number where they are made of the same, in any
 * order. Two of different viewers have it too where what differs is only in which units they hold their roles.
 */
export class Formulas implements Algebra<number> {
  readonly never = NEVER;
  readonly always = ALWAYS;

  private readonly nodes: Node[] = [QUESTION, QUESTION];
  private readonly numbers = new Map<string, number>();
  /** By viewer, the sets of units that they hold roles in, with numbers. */
  private readonly units: Map<string, number>[] = [];
  private readonly joined = { all: new Map<number, number>(), any: new Map<number, number>() };

  /** The number of a formula of the viewer in this place. */
  numberOf(formula: Formula, viewer: number): number {
    if (typeof formula === 'boolean') return formula ? ALWAYS : NEVER;
    const each = (parts: readonly Formula[]): number[] => parts.map((one) => this.numberOf(one, viewer));
    if ('all' in formula) return each(formula.all).reduce(this.both, ALWAYS);
    if ('any' in formula) return each(formula.any).reduce(this.either, NEVER);
    return this.numbered(QUESTION, this.questionOf(formula, viewer));
  }

  readonly both = (a: number, b: number): number => this.join('all', a, b);
  readonly either = (a: number, b: number): number => this.join('any', a, b);

  private join(how: 'all' | 'any', a: number, b: number): number {
    if (a > b) return this.join(how, b, a);
    if (a <= ALWAYS) return (a === NEVER) === (how === 'all') ? a : b;
    if (a === b) return a;
    const known = this.joined[how];
    const pair = numberOfPair(a, b);
    let number = known.get(pair);
    if (number === undefined) {
      const parts = [...new Set([...this.within(how, a), ...this.within(how, b)])].sort((x, y) => x - y);
      number = this.numbered({ how, parts }, `${how} ${parts.join(' ')}`);
      known.set(pair, number);
    }
    return number;
  }

  private within(how: 'all' | 'any', number: number): readonly number[] {
    const node = this.nodes[number] as Node;
    return node.how === how ? node.parts : [number];
  }

  private numbered(node: Node, key: string): number {
    let number = this.numbers.get(key);
    if (number === undefined) this.numbers.set(key, (number = this.nodes.push(node) - 1));
    return number;
  }

  /** Of several viewers who hold roles in units, it does not matter which these are, but which are the same. */
  private questionOf(question: Exclude<Formula, boolean>, viewer: number): string {
    if (!('atom' in question) || question.atom.is !== 'in units') return JSON.stringify(question);
    const units = (this.units[viewer] ??= new Map<string, number>());
    const set = question.atom.units.join(' ');
    const number = units.get(set) ?? units.size;
    units.set(set, number);
    return `units ${number} ${question.must}`;
  }
}

const QUESTION: Node = { how: 'question', parts: [] };

/** One number for two, of numbers below 2^26. */
const numberOfPair = (a: number, b: number): number => a * 2 ** 26 + b;
