import type { Id } from '../../model/id';
import type { AppElement, ElementKind } from '../../model/tree';
import type { Compiled } from '../deciding/compile';
import { sameAnswer, seenOf, type Answer } from '../deciding/level';
import type { LookPage } from '../sent/look';

/** What differs between viewers at one place: elements that stand together and differ alike are one entry. */
export interface Difference {
  readonly elements: readonly AppElement[];
  /** In the order of the pages; undefined where that page is of another screen. */
  readonly answers: readonly (Answer | undefined)[];
}

type Levels = Pick<LookPage, 'levels' | 'screens'>;

/** They differ by what they hold. */
const HOLDS: readonly ElementKind[] = ['menu', 'section', 'face'];

/**
 * What differs between the viewers of several pages: first of what is on a screen that at least two of them
 * show, then of the menu. What stands on a screen that is closed to one viewer differs as a whole, and is told
 * by the screen.
 */
export function differences(compiled: Compiled, pages: readonly Levels[]): Difference[] {
  const found: Difference[] = [];
  const screens = compiled.tree.elements.filter((one) => one.kind === 'screen');
  const among = screens.filter((one) => pages.filter(({ levels }) => levels[one.id]).length > 1);
  const add = (element: AppElement, pick: (page: Levels) => Answer | undefined): void => {
    const answers = pages.map(pick).map((one) => one && seenOf(element.kind, one));
    const known = answers.filter((one) => one !== undefined);
    if (known.length < 2 || known.every((one) => sameAnswer(one, known[0] as Answer))) return;
    const last = found.at(-1);
    const before = last?.elements.at(-1);
    if (last && before && alike(before, element) && sameList(last.answers, answers))
      found[found.length - 1] = { elements: [...last.elements, element], answers };
    else found.push({ elements: [element], answers });
  };
  for (const screen of among) {
    add(screen, ({ levels }) => levels[screen.id]);
    for (const element of compiled.tree.within(screen).slice(1))
      if (!HOLDS.includes(element.kind))
        add(element, ({ levels }) => ((levels[screen.id]?.most ?? 0) > 0 ? levels[element.id] : undefined));
  }
  for (const element of compiled.tree.elements)
    if (element.kind === 'menu-item') add(element, ({ levels }) => levels[element.id]);
  return found;
}

/** Screens that open for some of the viewers only. */
export function screensOfSome(compiled: Compiled, pages: readonly Levels[]): Difference[] {
  return compiled.tree.elements
    .filter((one) => one.kind === 'screen')
    .map((screen) => ({ elements: [screen], answers: pages.map(({ screens }) => screens[screen.id]) }))
    .filter(({ answers }) => {
      const open = answers.filter((one) => (one?.most ?? 0) > 0).length;
      return open > 0 && open < answers.length;
    });
}

const alike = (a: AppElement, b: AppElement): boolean => a.kind === b.kind && a.container === b.container;

const sameList = (a: Difference['answers'], b: Difference['answers']): boolean =>
  a.every((one, n) => {
    const other = b[n];
    return one && other ? sameAnswer(one, other) : one === other;
  });

/** The elements of all differences, to be marked where they are drawn. */
export const differing = (found: readonly Difference[]): ReadonlySet<Id> =>
  new Set(found.flatMap(({ elements }) => elements.map((one) => one.id)));
