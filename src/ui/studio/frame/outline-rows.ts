import type { Compiled } from '@/core/access';
import { type AppElement, isDataDoor } from '@/core/model';

/** A row of the outline as it stands now, with its place for screen readers. */
export interface OutlineRow {
  readonly element: AppElement;
  readonly depth: number;
  readonly folded: boolean;
  readonly hasContents: boolean;
  readonly place: number;
  readonly among: number;
  /** What the rows from here on are. */
  readonly heading?: string;
}

type Only = (element: AppElement) => boolean;

/** What stands under the application, of that which is shown: the menus, the areas, then the data. */
function tops({ tree: { root } }: Compiled, only: Only): AppElement[] {
  const order = (element: AppElement): number => (isDataDoor(element) ? 1 : 0);
  // An area is not shown with the menus; its own menu is.
  const inHidden = root.contents.flatMap((one) => (only(one) ? [] : one.contents));
  return [...root.contents, ...inHidden].filter(only).toSorted((a, b) => order(a) - order(b));
}

/**
 * The rows to show: of what is unfolded; or with words, of what has all of them in its name, with what
 * leads there. With `only`, only these; those whose container is not shown come first of all.
 */
export function outlineRows(
  compiled: Compiled,
  unfolded: ReadonlySet<string>,
  words: string,
  only: Only = () => true,
): OutlineRow[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const hits = (element: AppElement): boolean =>
    wanted.every((word) => element.name.toLowerCase().includes(word));
  const leads = (element: AppElement): boolean => hits(element) || contents(element).some(leads);
  const contents = (element: AppElement): AppElement[] => element.contents.filter(only);
  const rows: OutlineRow[] = [];
  const add = (elements: readonly AppElement[], depth: number): void => {
    const shown = wanted.length > 0 ? elements.filter(leads) : elements;
    shown.forEach((element, n) => {
      const inside = contents(element);
      const hasContents = inside.length > 0;
      const open = wanted.length > 0 ? inside.some(leads) : unfolded.has(element.id);
      const begins = element.kind === 'rows' && n > 0 && shown[n - 1]?.kind !== 'rows';
      const heading = begins ? { heading: 'Data' } : {};
      rows.push({
        element,
        depth,
        hasContents,
        folded: !open,
        place: n + 1,
        among: shown.length,
        ...heading,
      });
      if (open) add(inside, depth + 1);
    });
  };
  const { root } = compiled.tree;
  if (only(root) && (wanted.length === 0 || hits(root)))
    rows.push({ element: root, depth: 0, hasContents: false, folded: false, place: 1, among: 1 });
  add(tops(compiled, only), 0);
  return rows;
}

/** How high a row is, in pixels. */
export const ROW = 27;
