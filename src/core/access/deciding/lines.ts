import type { Line } from '../../model/gate';

/** What can be joined as lines are: formulas, a bit for each of many viewers, what is said of everybody. */
export interface Algebra<T> {
  readonly never: T;
  readonly always: T;
  readonly both: (a: T, b: T) => T;
  readonly either: (a: T, b: T) => T;
}

/** What it takes to reach each level. What reaches edit reaches see. */
export interface PerLevel<T> {
  readonly see: T;
  readonly edit: T;
}

/**
 * What the lines of one gate give, without its containers: the one place that says so (access.md 3). A level is
 * reached where some line gives it and no line takes it away.
 *
 * @param matches of a line that gives: when it matches; of one that takes away: when it does not
 * @param beside what gives beside the lines, as if by a line: what somebody has unlocked
 */
export function givenBy<T, L extends Pick<Line, 'what'> = Line>(
  { never, always, both, either }: Algebra<T>,
  lines: readonly L[],
  matches: (line: L, n: number) => T,
  beside: readonly PerLevel<T>[] = [],
): PerLevel<T> {
  let [see, edit, spared, uncapped] = [never, never, always, always];
  for (const one of beside) {
    see = either(see, one.see);
    edit = either(edit, one.edit);
  }
  lines.forEach((line, n) => {
    const is = matches(line, n);
    if (line.what === 'edit') edit = either(edit, is);
    else if (line.what === 'see') see = either(see, is);
    else if (line.what === 'block') spared = both(spared, is);
    else uncapped = both(uncapped, is);
  });
  return { see: both(either(see, edit), spared), edit: both(both(edit, spared), uncapped) };
}
