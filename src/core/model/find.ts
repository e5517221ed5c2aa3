import type { Element, Tree } from './tree';

/**
 * The elements that have all of these words in their name or in that of their screen or container, best first:
 * those whose own name begins with the words, then those that have them in it, then the rest.
 */
export function findElements(tree: Tree, words: string, most: number): Element[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const whole = wanted.join(' ');
  const rank = (element: Element): number | undefined => {
    const name = element.name.toLowerCase();
    const around = `${name} ${element.screen?.name ?? ''} ${element.container?.name ?? ''}`.toLowerCase();
    if (!wanted.every((word) => around.includes(word))) return undefined;
    if (name.startsWith(whole)) return 0;
    return wanted.every((word) => name.includes(word)) ? 1 : 2;
  };
  const byRank: Element[][] = [[], [], []];
  for (const element of tree.elements) {
    const place = rank(element);
    if (place !== undefined) byRank[place]?.push(element);
  }
  return byRank.flat().slice(0, most);
}
