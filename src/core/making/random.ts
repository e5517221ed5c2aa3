/** A seeded generator (mulberry32): the same seed gives the same on every machine. */
export class Random {
  constructor(private state: number) {}

  /** From 0 up to, not including, 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  /** A whole number from `least` to `most`. */
  whole(least: number, most: number): number {
    return least + Math.floor(this.next() * (most - least + 1));
  }

  one<T>(from: readonly T[]): T {
    return from[this.whole(0, from.length - 1)] as T;
  }

  /** One of them, by how often each should come. */
  weighed<T>(from: readonly (readonly [T, number])[]): T {
    let at = this.next() * from.reduce((sum, [, weight]) => sum + weight, 0);
    for (const [value, weight] of from) if ((at -= weight) < 0) return value;
    return (from[0] as readonly [T, number])[0];
  }

  id(length = 8): string {
    return Array.from({ length }, () => this.one([...'0123456789ABCDEFGHJKMNPQRSTVWXYZ'])).join('');
  }
}
