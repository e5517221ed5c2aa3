import { mayStandIn } from '@/core/edit';
import { type AppElement, type Slot, type treeOf } from '@/core/model';

interface Holder {
  readonly id: string;
  readonly name: string;
  /** How many stand there: it comes behind them. */
  readonly count: number;
}

/** Where else an element could stand: in another section of its screen, another area, under another menu item. */
export function otherHolders(
  tree: ReturnType<typeof treeOf>,
  element: AppElement,
  slot: Slot,
): readonly Holder[] {
  return tree.elements.flatMap((one) => {
    if (one.id === slot.in || !mayStandIn(tree, element, slot, { in: one.id, list: slot.list })) return [];
    const held = (one.node as unknown as Record<string, readonly unknown[] | undefined>)[slot.list] ?? [];
    return [{ id: one.id, name: holderName(one), count: held.length }];
  });
}

function holderName({ kind, name, container }: AppElement): string {
  if (kind === 'menu-item') return `under ${name}`;
  if (kind !== 'menu') return name;
  return container?.kind === 'area' ? `the top of the menu of ${container.name}` : 'the top of the menu';
}
