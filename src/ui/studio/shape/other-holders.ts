import { type AppElement, type Definition, type Slot, type treeOf } from '@/core/model';

interface Holder {
  readonly id: string;
  readonly name: string;
  /** How many stand there: it comes behind them. */
  readonly count: number;
}

/** Where else an element could stand: in another section of its screen, another area, under another menu item. */
export function otherHolders(
  tree: ReturnType<typeof treeOf>,
  { menu }: Definition,
  element: AppElement,
  slot: Slot,
): readonly Holder[] {
  const others = tree.elements.filter((one) => one.id !== slot.in);
  switch (slot.list) {
    case 'parts':
      return others.flatMap((one) =>
        one.kind === 'section' && one.screen === element.screen
          ? [{ id: one.id, name: one.name, count: one.node.parts.length }]
          : [],
      );
    case 'screens':
      return others.flatMap((one) =>
        one.kind === 'area' ? [{ id: one.id, name: one.name, count: one.node.screens.length }] : [],
      );
    case 'items': {
      const within = new Set(tree.within(element).map(({ id }) => id));
      const items = others.flatMap((one) =>
        one.kind === 'menu-item' && !within.has(one.id)
          ? [{ id: one.id, name: `under ${one.name}`, count: one.node.items.length }]
          : [],
      );
      return slot.in === menu.id
        ? items
        : [{ id: menu.id, name: 'the top of the menu', count: menu.items.length }, ...items];
    }
    default:
      return [];
  }
}
