import { NONE } from '../access/deciding/level';
import { newLine, editLines } from '../edit/edits/make';
import { gives, sameWho, type Who } from '../model/gate';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check, ProposedMend } from './finding';
import { unhelpfulLines, type UnhelpfulLine } from './unhelpful-lines';
import { called, sentence } from './words';

/** From so many elements on it is told once, at what they stand in. */
const MANY = 2;

/**
 * Lines give people several things in a container that is closed to them: what is wrong is most likely the container.
 *
 * Has it: a section for registrars with three fields for lenders.
 * Has it not: the same section, open to lenders as well.
 */
export const containerCloses: Check = {
  kind: 'container-closes',
  rank: 'not-meant',
  title: 'A container that closes what is in it',
  *find(context) {
    for (const [container, lines] of closingContainers(context)) {
      const rows = new Set(lines.flatMap(({ whom }) => whom.map(({ row }) => row)));
      const whom = context.viewers.filter(({ row }) => rows.has(row));
      const elements = new Set(lines.map(({ element }) => element));
      yield {
        reason: sentence(
          `${called(container)} is closed to ${context.names(whom)}, but lines give them ${elements.size} elements in it: ${namesIn(elements)}.`,
        ),
        places: [container.id, ...[...elements].map(({ id }) => id)],
        whom,
        mends: [...opening(context, container, lines, whom), removingAll(context, lines, whom)],
      };
    }
  },
};

const namesIn = (elements: ReadonlySet<AppElement>): string => {
  const names = [...elements].map(({ name }) => name);
  return names.length > 4 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');
};

/** What is closed around several elements with lines for the same people, with these lines. */
export function closingContainers(context: Context): Map<AppElement, readonly UnhelpfulLine[]> {
  const found = new Map<AppElement, UnhelpfulLine[]>();
  for (const one of unhelpfulLines(context))
    if (one.isWithin) found.set(one.closed, [...(found.get(one.closed) ?? []), one]);
  for (const [container, lines] of found)
    if (new Set(lines.map(({ element }) => element)).size < MANY) found.delete(container);
  return found;
}

/** Where nothing else closes it to them. */
function opening(
  context: Context,
  container: AppElement,
  lines: readonly UnhelpfulLine[],
  whom: readonly AskedViewer[],
): ProposedMend[] {
  const before = context.compiled.lines(container.id);
  const { container: around } = container;
  if (!before?.every(gives)) return [];
  if (around && whom.some((viewer) => context.mostByGate(viewer, around) === NONE)) return [];
  const who: Who[] = [];
  for (const { line } of lines) if (!who.some((one) => sameWho(one, line.who))) who.push(line.who);
  const says = `Open ${called(container)} to them, with everything in it that follows it.`;
  const after = [...before, ...who.map((one) => newLine(one, 'edit'))];
  return [{ says, does: 'opens', edit: editLines(container.id, before, after) }];
}

/** They give something at most to who has another role as well. */
function removingAll(
  context: Context,
  lines: readonly UnhelpfulLine[],
  whom: readonly AskedViewer[],
): ProposedMend {
  // From the last line of each gate on, so that the places of the others stay as they are.
  const edits = [...lines]
    .sort((one, other) => other.at - one.at)
    .map(({ element, line, at }) => ({ do: 'removeLine', gate: element.id, line, at }) as const);
  return {
    says: `Remove the ${lines.length} lines that give ${context.names(whom)} what is in it.`,
    does: 'closes',
    edit: { do: 'together', edits },
  };
}
