import type { Button, Definition, Effect, List, Screen } from '../../model/definition';
import { sectionsOf, treeOf } from '../../model/tree';

/** Something that a button can do where it stands. */
interface PossibleEffect {
  readonly key: string;
  /** What a button that does it may be called. */
  readonly name: string;
  readonly about: string;
  readonly effect: Button['effect'];
}

/**
 * What a button can do on a screen, or in the rows of a list on it: with the record that it has there, with the lists
 * beside it, and with the session.
 */
export function effectsOn(definition: Definition, screen: Screen, row?: List): readonly PossibleEffect[] {
  const tree = treeOf(definition);
  const { binds } = screen;
  const existing = tree.entityOf(row ? row.entity : binds?.record === 'existing' ? binds.entity : '');
  const found: PossibleEffect[] = [];
  const can = (key: string, name: string, about: string, effect: Button['effect']): void =>
    void found.push({ key, name, about, effect });
  if (binds && !row)
    can('save', binds.record === 'new' ? 'Add' : 'Save changes', 'saves the record', { do: 'save' });
  if (existing) can('delete', 'Delete', 'deletes the record', { do: 'delete' });
  for (const action of existing?.actions ?? [])
    if (action.kind === 'named')
      can(`action ${action.id}`, action.name, 'runs the action on the record', {
        do: 'action',
        action: action.id,
      });
  if (!row)
    for (const part of sectionsOf(screen).flatMap(({ parts }) => parts)) {
      if (part.kind !== 'list') continue;
      const { id: list, name } = part;
      const may = tree.entityOf(part.entity)?.actions.map(({ kind }) => kind) ?? [];
      if (may.includes('export'))
        can(`export ${list}`, 'Export', `exports ${name} as a file`, { do: 'export', list });
      if (may.includes('bulk'))
        can(`bulk ${list}`, 'Bulk edit', `changes the selected records in ${name}`, { do: 'bulk', list });
    }
  for (const other of tree.screens())
    if (other !== screen && (other.binds?.record !== 'existing' || other.binds.entity === existing?.id))
      can(`open ${other.id}`, other.name, 'opens that screen', { do: 'open', screen: other.id });
  for (const { id, name, type } of definition.sessionValues) {
    const to = type.kind === 'boolean' ? true : type.kind === 'choice' ? (type.options[0]?.id ?? null) : null;
    can(`set-session ${id}`, `Set ${name}`, 'sets the session value', { do: 'set-session', value: id, to });
  }
  can('visit', 'Open an external page', 'opens a web address', {
    do: 'visit',
    url: 'https://example.com/',
  });
  if (!row) can('sign-out', 'Sign out', 'ends the session', { do: 'sign-out' });
  return found;
}

/** The key that `effectsOn` gives an effect, whatever it is set to. */
export function effectKey(effect: Effect): string {
  switch (effect.do) {
    case 'open':
      return `open ${effect.screen}`;
    case 'action':
      return `action ${effect.action}`;
    case 'export':
    case 'bulk':
      return `${effect.do} ${effect.list}`;
    case 'set-session':
      return `set-session ${effect.value}`;
    case 'delete':
    case 'save':
    case 'sign-out':
    case 'visit':
      return effect.do;
  }
}
