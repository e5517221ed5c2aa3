import type { Line } from '../model/gate';
import type { Context } from './context';
import type { PlacedLine } from './mends';

/** Every line of every gate, where it stands, with all lines of its gate. */
export function* linesIn({
  definition,
  tree,
}: Context): Generator<PlacedLine & { readonly lines: readonly Line[] }, void> {
  for (const [id, { lines }] of Object.entries(definition.gates)) {
    const element = tree.get(id);
    if (!element) continue;
    for (const [at, line] of lines.entries()) yield { element, line, at, lines };
  }
}
