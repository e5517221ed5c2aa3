import type { Answer, Level } from '../access/deciding/level';

const LEVELS = ['none', 'see', 'edit'] as const;

/** The level as files and commands name it. */
export const levelName = (level: Level): string => LEVELS[level];

/** `none`, `see`, `edit`, or the least and the most as `see..edit`; undefined for anything else. */
export function readLevels(text: string): Answer | undefined {
  const [least = '', most = least, ...more] = text.toLowerCase().split('..');
  const [a, b] = [least, most].map((one) => (LEVELS as readonly string[]).indexOf(one.trim()));
  return more.length > 0 || a === undefined || b === undefined || a < 0 || b < a
    ? undefined
    : { least: a as Level, most: b as Level };
}

/** As `readLevels` reads it. */
export const levelsText = ({ least, most }: Answer): string =>
  least === most ? levelName(least) : `${levelName(least)}..${levelName(most)}`;
