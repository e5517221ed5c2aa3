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
    const name =
      one.kind === 'menu' ? 'the top of the menu' : one.kind === 'menu-item' ? `under ${one.name}` : one.name;
    return [{ id: one.id, name, count: held.length }];
  });
}
