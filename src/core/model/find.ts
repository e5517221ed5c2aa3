import type { AppElement, Tree } from './tree';

/**
 * The elements that have all of these words in their name or in that of their screen or container, best first:
 * those whose own name begins with the words, then those that have them in it, then the rest.
 */
export function findElements(tree: Tree, words: string, most: number): AppElement[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const whole = wanted.join(' ');
  const rank = (element: AppElement): number | undefined => {
    const name = element.name.toLowerCase();
    const around = `${name} ${element.screen?.name ?? ''} ${element.container?.name ?? ''}`.toLowerCase();
    if (!wanted.every((word) => around.includes(word))) return undefined;
    if (name.startsWith(whole)) return 0;
    return wanted.every((word) => name.includes(word)) ? 1 : 2;
  };
  const byRank: AppElement[][] = [[], [], []];
  for (const element of tree.elements) {
    const place = rank(element);
    if (place !== undefined) byRank[place]?.push(element);
  }
  return byRank.flat().slice(0, most);
}
