import { readFileSync, writeFileSync } from 'node:fs';

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

/** The median. */
export const middle = (some: readonly number[]): number =>
  some.toSorted((a, b) => a - b)[Math.floor(some.length / 2)] ?? 0;

/** Runs each in turn, `rounds` times after warming up, and returns each one's median in milliseconds. */
export function median(tasks: readonly (() => void)[], rounds: number): number[] {
  const times = tasks.map((): number[] => []);
  for (let round = -5; round < rounds; round++)
    tasks.forEach((task, n) => {
      const start = performance.now();
      task();
      if (round >= 0) times[n]?.push(performance.now() - start);
    });
  return times.map(middle);
}

/** Each measure's ratio at the last release, by its name: kept with the code, so that one sees it move. */
const LAST = new URL('./last-release.json', import.meta.url);

/** Keeps these ratios as those of the release that is being made: `npm run bench -- --keep`. */
export function keep(measures: readonly Measure[]): void {
  const ratios = Object.fromEntries(measures.map(({ name, ratio }) => [name, Math.round(ratio * 100) / 100]));
  writeFileSync(LAST, `${JSON.stringify(ratios, null, 2)}\n`);
}

export function printTable(measures: readonly Measure[]): void {
  const last = JSON.parse(readFileSync(LAST, 'utf8')) as Record<string, number>;
  console.table(
    measures.map(({ name, ours, against, unit, ratio, most }) => ({
      measure: name,
      ours: `${ours.toFixed(2)} ${unit}`,
      against: `${against.toFixed(2)} ${unit}`,
      ratio: ratio.toFixed(2),
      'last release': last[name]?.toFixed(2) ?? 'new',
      'at most': most ?? 'reported',
    })),
  );
  console.log(JSON.stringify(measures));
}
