import type { Grants } from '../../access/deciding/grants';
import { EDIT, type Level } from '../../access/deciding/level';
import { gives, sameLine, type Line, type What, type Who } from '../../model/gate';
import type { Id } from '../../model/id';
import { withIncluded } from '../../model/tree';
import { newLine } from '../edits/make';

/** By level, what gives it and what limits to it. */
const GIVES: Readonly<Record<Level, What | undefined>> = [undefined, 'see', 'edit'];
const LIMITS: Readonly<Record<Level, What | undefined>> = ['block', 'at-most-see', undefined];
const ALL = ['see', 'edit', 'at-most-see', 'block'] as const;

/** A gate's lines, for whom others are looked for, and by which names a line could speak of them. */
export interface CandidateContext {
  readonly held: Grants;
  readonly lines: readonly Line[];
  readonly names: readonly Who[];
}

/**
 * The lists of lines that could give the viewer this level at a gate: as it is; then one line taken away, changed or
 * added; and the same without all that limits them. What each gives is not asked here.
 */
export function* candidates(
  { held, lines, names }: CandidateContext,
  level: Level,
): Generator<readonly Line[]> {
  yield lines;
  const [give, limit] = [GIVES[level], LIMITS[level]];
  const speaks = new Set(lines.filter((line) => held.isSpokenOf(line.who)('be false') !== true));
  const free = lines.filter((line) => gives(line) || !speaks.has(line));
  for (const base of free.length === lines.length ? [lines] : [lines, free]) {
    if (base !== lines) yield base;
    for (const line of base.filter((one) => speaks.has(one))) {
      const without = base.filter((one) => one !== line);
      yield without;
      const narrower = narrowed(held, line);
      if (narrower) yield base.flatMap((one) => (one === line ? narrower : [one]));
      for (const other of changes(line, level)) yield base.map((one) => (one === line ? other : one));
      if (give) for (const who of names) yield [...without, newLine(who, give)];
    }
    if (give) for (const who of names) yield [...base, newLine(who, give)];
    // What takes away from a role takes from whoever holds just that one, not from those above it.
    if (limit) for (const who of names.filter(isNarrow)) yield [...base, newLine(who, limit)];
  }
}

/**
 * A line that speaks of a role and of those above it, for all of them but who is given what the viewer is: for the next
 * ones above where it is the lowest, and for those below it by themselves.
 */
function narrowed({ definition, viewer }: Grants, line: Line): Line[] | undefined {
  if (viewer.kind !== 'signed-in' || line.who.kind !== 'role' || line.who.exactly) return undefined;
  const { role: lowest } = line.who;
  const above = (id: Id): Id[] =>
    definition.roles.filter((one) => withIncluded(definition, [one.id]).has(id)).map((one) => one.id);
  const assigned = new Set(viewer.assignments.map(({ role }) => role));
  const keep = above(lowest).filter((id) => !assigned.has(id));
  const whole = keep.filter((id) => above(id).every((one) => keep.includes(one)));
  // Those above one that is whole go with it.
  const first = whole.filter((id) => !whole.some((one) => one !== id && above(one).includes(id)));
  const alone = keep.filter((id) => !whole.includes(id));
  const whom: Who[] = [
    ...first.map((role) => ({ kind: 'role', role }) as const),
    ...alone.map((role) => ({ kind: 'role', role, exactly: true }) as const),
  ];
  if (whom.length === 0 || keep.length === above(lowest).length) return undefined;
  return whom.map((who, n) =>
    n === 0 ? { ...line, who } : { ...newLine(who, line.what), ...(line.when && { when: line.when }) },
  );
}

const isNarrow = (who: Who): boolean => who.kind !== 'role' || who.exactly === true;

/** The line with another what; without its condition, also as what gives all of the level. */
function* changes(line: Line, level: Level): Generator<Line> {
  for (const what of ALL) if (what !== line.what) yield { ...line, what };
  if (!line.when) return;
  const { id, who, what } = line;
  yield { id, who, what: what === 'see' && level === EDIT ? 'edit' : what };
}

/** The lines that block and were not there, or did less. */
export const newBlocks = (before: readonly Line[], after: readonly Line[]): Line[] =>
  after.filter((line) => !gives(line) && !before.some((one) => sameLine(one, line)));

/** How many lines are added, taken away or changed; adding counts a little more. */
export function linesApart(before: readonly Line[], after: readonly Line[]): number {
  const lost = before.filter((line) => !after.some((one) => sameLine(one, line))).length;
  const added = after.filter((line) => !before.some((one) => one.id === line.id)).length;
  return lost + added * 1.1;
}
