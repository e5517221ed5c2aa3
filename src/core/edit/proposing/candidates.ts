import type { Held } from '../../access/deciding/held';
import { EDIT, type Level } from '../../access/deciding/level';
import { gives, sameLine, type Line, type What, type Who } from '../../model/gate';
import { newLine } from '../edits/make';

/** By level, what gives it and what limits to it. */
const GIVES: Readonly<Record<Level, What | undefined>> = [undefined, 'see', 'edit'];
const LIMITS: Readonly<Record<Level, What | undefined>> = ['block', 'at-most-see', undefined];
const ALL = ['see', 'edit', 'at-most-see', 'block'] as const;

/** A gate's lines, for whom others are looked for, and by which names a line could speak of them. */
export interface Around {
  readonly held: Held;
  readonly lines: readonly Line[];
  readonly names: readonly Who[];
}

/**
 * The lists of lines that could give the viewer this level at a gate: as it is; then one line taken away, changed or
 * added; and the same without all that limits them. What each gives is not asked here.
 */
export function* candidates({ held, lines, names }: Around, level: Level): Generator<readonly Line[]> {
  yield lines;
  const [give, limit] = [GIVES[level], LIMITS[level]];
  const speaks = new Set(lines.filter((line) => held.isSpokenOf(line.who)('be false') !== true));
  const free = lines.filter((line) => gives(line) || !speaks.has(line));
  for (const base of free.length === lines.length ? [lines] : [lines, free]) {
    if (base !== lines) yield base;
    for (const line of base.filter((one) => speaks.has(one))) {
      const without = base.filter((one) => one !== line);
      yield without;
      for (const other of changes(line, level)) yield base.map((one) => (one === line ? other : one));
      if (give) for (const who of names) yield [...without, newLine(who, give)];
    }
    if (give) for (const who of names) yield [...base, newLine(who, give)];
    // What takes away from a role takes from whoever holds just that one, not from those above it.
    if (limit) for (const who of names.filter(isNarrow)) yield [...base, newLine(who, limit)];
  }
}

const isNarrow = (who: Who): boolean => who.kind !== 'role' || who.exactly === true;

/** The line with another what; without its condition, also as what gives all of the level. */
function* changes(line: Line, level: Level): Generator<Line> {
  for (const what of ALL) if (what !== line.what) yield { ...line, what };
  if (!line.when) return;
  const { id, who, what } = line;
  yield { id, who, what: what === 'see' && level === EDIT ? 'edit' : what };
}

/** How many lines are added, taken away or changed; adding counts a little more. */
export function linesApart(before: readonly Line[], after: readonly Line[]): number {
  const lost = before.filter((line) => !after.some((one) => sameLine(one, line))).length;
  const added = after.filter((line) => !before.some((one) => one.id === line.id)).length;
  return lost + added * 1.1;
}
