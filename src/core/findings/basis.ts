import { treeOf } from '../model/tree';
import type { Definition } from '../model/definition';
import { idInKey } from '../access/deciding/viewer-key';
import { type Finding, keysOf } from './finding';

/** What tells a finding from all others: its kind and its places. */
export const keyOfFinding = ({ kind, places }: Pick<Finding, 'kind' | 'places'>): string =>
  [kind, ...places].join(' ');

/**
 * What a finding rests on, as text: that it is there, whom it touches among kinds of viewers (else the people), and the
 * lines at its places and around them. While that is the same, who set it aside need not look again.
 */
export function basisOf(definition: Definition, { kind, places, whom }: Finding): string {
  const kinds = whom.flatMap(({ key }) => (idInKey('person', key) === undefined ? [key] : []));
  const tree = treeOf(definition);
  const around = new Set<string>(places);
  for (const id of places) for (let at = tree.get(id); at; at = at.container) around.add(at.id);
  const gates = [...around].sort().map((id) => [id, definition.gates[id]?.lines]);
  const named = [...definition.roles, ...definition.groups, ...definition.conditions].filter(({ id }) =>
    places.includes(id),
  );
  return JSON.stringify([kind, places, kinds.length > 0 ? kinds : keysOf(whom), gates, named]);
}
