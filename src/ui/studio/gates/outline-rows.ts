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

/** What stands under the application: the menu, the areas, then the data. */
function tops({ tree }: Compiled): AppElement[] {
  const order = (element: AppElement): number => (isDataDoor(element) ? 1 : 0);
  return tree.root.contents.toSorted((a, b) => order(a) - order(b));
}

/**
 * The rows to show: of what is unfolded; or with words, of what has all of them in its name, with what
 * leads there. With `only`, of the application and of those that stand in it, only these.
 */
export function outlineRows(
  compiled: Compiled,
  unfolded: ReadonlySet<string>,
  words: string,
  only: (top: AppElement) => boolean = () => true,
): OutlineRow[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const hits = (element: AppElement): boolean =>
    wanted.every((word) => element.name.toLowerCase().includes(word));
  const leads = (element: AppElement): boolean => hits(element) || element.contents.some(leads);
  const rows: OutlineRow[] = [];
  const add = (elements: readonly AppElement[], depth: number): void => {
    const shown = wanted.length > 0 ? elements.filter(leads) : elements;
    shown.forEach((element, n) => {
      const hasContents = element.contents.length > 0;
      const open = wanted.length > 0 ? element.contents.some(leads) : unfolded.has(element.id);
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
      if (open) add(element.contents, depth + 1);
    });
  };
  const { root } = compiled.tree;
  if (only(root) && (wanted.length === 0 || hits(root)))
    rows.push({ element: root, depth: 0, hasContents: false, folded: false, place: 1, among: 1 });
  add(tops(compiled).filter(only), 0);
  return rows;
}

/** How high a row is, in pixels. */
export const ROW = 27;
