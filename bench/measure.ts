/** One comparison within one run. */
export interface Measure {
  readonly name: string;
  readonly ours: number;
  readonly against: number;
  readonly unit: string;
  /** Ours by the other's. */
  readonly ratio: number;
  /** What the ratio must not exceed; absent where it is only reported. */
  readonly most?: number;
}

/** Runs each in turn, `rounds` times after warming up, and returns each one's median in milliseconds. */
export function median(tasks: readonly (() => void)[], rounds: number): number[] {
  const times = tasks.map((): number[] => []);
  for (let round = -5; round < rounds; round++)
    tasks.forEach((task, n) => {
      const start = performance.now();
      task();
      if (round >= 0) times[n]?.push(performance.now() - start);
    });
  return times.map((all) => all.sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0);
}

export function printTable(measures: readonly Measure[]): void {
  console.table(
    measures.map(({ name, ours, against, unit, ratio, most }) => ({
      measure: name,
      ours: `${ours.toFixed(2)} ${unit}`,
      against: `${against.toFixed(2)} ${unit}`,
      ratio: ratio.toFixed(2),
      'at most': most ?? 'reported',
    })),
  );
  console.log(JSON.stringify(measures));
}
