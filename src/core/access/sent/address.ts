import type { Screen } from '../../model/definition';
import type { Id } from '../../model/id';
import type { Tree } from '../../model/tree';

/** What an address of the application leads to, before anybody asks who may. */
export interface Destination {
  readonly screen: Screen;
  readonly record?: Id;
}

/**
 * Reads an address without its leading slash: `items`, `items/new`, `items/7Q2M`. An exact one comes first.
 *
 * @example
 * const { tree } = compile(LARKFIELD);
 * readAddress(tree, 'items/7Q2M')?.record // → '7Q2M'
 * readAddress(tree, 'nowhere') // → undefined
 */
export function readAddress(tree: Tree, address: string): Destination | undefined {
  const screens = tree.screens();
  const exact = screens.find((one) => one.address === address && one.binds?.record !== 'existing');
  if (exact) return { screen: exact };
  const cut = address.lastIndexOf('/');
  const record = address.slice(cut + 1);
  if (cut < 1 || record === '') return undefined;
  const before = address.slice(0, cut);
  const screen = screens.find((one) => one.address === before && one.binds?.record === 'existing');
  return screen && { screen, record };
}
