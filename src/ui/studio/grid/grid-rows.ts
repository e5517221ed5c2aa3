import { type Answer, type Cell, type Compiled, sameAnswer } from '@/core/access';
import { type AppElement, type ElementKind, isDataDoor } from '@/core/model';

/** What of the tree the grid shows. */
export interface GridFilter {
  readonly show: 'all' | 'own' | 'doors' | 'conditional' | 'differ';
  /** The columns that are compared, by place. */
  readonly between: readonly [number, number];
  readonly kind: ElementKind | '';
  readonly words: string;
}

export const EVERYTHING: GridFilter = { show: 'all', between: [0, 1], kind: '', words: '' };

/** A row of the grid, with its place for screen readers. */
export interface GridRow {
  readonly element: AppElement;
  readonly depth: number;
  readonly hasContents: boolean;
  readonly folded: boolean;
  readonly place: number;
  readonly among: number;
  /** Does the filter hold it? Else it only leads to what it holds. */
  readonly hit: boolean;
}

/** Is something filtered out? Then all that is left is unfolded. */
export const isFiltered = (filter: GridFilter): boolean =>
  filter.show !== 'all' || filter.kind !== '' || filter.words.trim() !== '';

/**
 * The rows, in the order of the tree with the doors last, and how many elements the filter holds of how many.
 * `answer` asks one column; `columns` is how many there are.
 */
export function gridRows(
  compiled: Compiled,
  filter: GridFilter,
  unfolded: ReadonlySet<string>,
  columns: number,
  answer: (column: number, element: AppElement) => Answer,
): { readonly rows: readonly GridRow[]; readonly hits: number; readonly of: number } {
  const filtered = isFiltered(filter);
  const words = filter.words.toLowerCase().split(/\s+/).filter(Boolean);
  const [a, b] = filter.between;
  const isHit = (element: AppElement): boolean => {
    if (filter.kind !== '' && element.kind !== filter.kind) return false;
    if (words.some((word) => !element.name.toLowerCase().includes(word))) return false;
    switch (filter.show) {
      case 'all':
        return true;
      case 'own':
        return compiled.lines(element.id) !== undefined;
      case 'doors':
        return isDataDoor(element) || element.kind === 'screen';
      case 'conditional':
        for (let n = 0; n < columns; n++) {
          const { least, most } = answer(n, element);
          if (least !== most) return true;
        }
        return false;
      case 'differ':
        return !sameAnswer(answer(a, element), answer(b, element));
    }
  };
  const { elements, root } = compiled.tree;
  const hit = new Uint8Array(elements.length);
  const leads = new Uint8Array(elements.length);
  let hits = 0;
  // From the last to the first, so that what leads to a hit is known when its container is reached.
  for (let n = elements.length - 1; n >= 0; n--) {
    const element = elements[n] as AppElement;
    if (filtered ? isHit(element) : true) {
      hit[n] = 1;
      hits++;
    }
    if ((hit[n] || leads[n]) && element.container) leads[element.container.number] = 1;
  }
  const rows: GridRow[] = [];
  const add = (these: readonly AppElement[], depth: number): void => {
    const shown = filtered ? these.filter(({ number }) => hit[number] || leads[number]) : these;
    shown.forEach((element, n) => {
      const hasContents = filtered ? leads[element.number] === 1 : element.contents.length > 0;
      const open = filtered || unfolded.has(element.id);
      rows.push({
        element,
        depth,
        hasContents,
        folded: !open,
        place: n + 1,
        among: shown.length,
        hit: hit[element.number] === 1,
      });
      if (open) add(element.contents, depth + 1);
    });
  };
  if (!filtered || hit[0])
    rows.push({
      element: root,
      depth: 0,
      hasContents: false,
      folded: false,
      place: 1,
      among: 1,
      hit: hit[0] === 1,
    });
  add(
    root.contents.toSorted((one, other) => Number(isDataDoor(one)) - Number(isDataDoor(other))),
    0,
  );
  return { rows, hits, of: elements.length };
}

/** Where a cell's level comes from, in words. */
export function originInWords({ own, byContainer, byDoor, answer }: Cell): string {
  const parts = [
    own ? 'own lines' : 'follows',
    ...(byContainer ? ['limited by its container'] : []),
    ...(byDoor ? ['limited by its door'] : []),
    ...(answer.least !== answer.most ? ['depends on a condition, a unit or the record'] : []),
  ];
  return parts.join(', ');
}
