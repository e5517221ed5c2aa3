import { goneIn } from '../condition/check';
import type { Definition } from './definition';
import type { Who } from './gate';
import type { Id } from './id';
import { privilegesOf } from './privileges';
import type { Problem } from './problem';
import { rolesById, treeOf } from './tree';
import { unitAndBelow } from './units';

const lacks = (among: readonly { readonly id: Id }[], id: Id): boolean => !among.some((one) => one.id === id);

/** Is the one whom the line speaks of gone from the definition? Then it is in doubt whom it means. */
export function isDangling(definition: Definition, who: Who): boolean {
  switch (who.kind) {
    case 'role':
      return !rolesById(definition).has(who.role);
    case 'privilege':
      return lacks(privilegesOf(definition), who.privilege);
    case 'group':
      return lacks(definition.groups, who.group);
    case 'unit':
      return unitAndBelow(definition, who.unit) === undefined;
    case 'everyone':
    case 'person':
    case 'signed-in':
    case 'signed-out':
      return false;
  }
}

/**
 * What the definition mentions that is gone: it is nobody, and in doubt where it takes something away.
 * Not faults, since the definition still means something; but surely not meant. `people` are the ids of
 * those there are; without it, people are not looked at.
 */
export function findDanglingReferences(definition: Definition, people?: ReadonlySet<Id>): Problem[] {
  const tree = treeOf(definition);
  const found: Problem[] = [];
  const say = (place: string, what: string, mend: string): void => {
    found.push({ code: 'gone', place, message: `It refers to ${what}, which no longer exists.`, mend });
  };
  for (const [element, { lines }] of Object.entries(definition.gates)) {
    const place = `Gate of ${tree.get(element)?.name ?? element}`;
    for (const { who, when } of lines) {
      const [, id] = Object.values(who) as string[];
      const gone =
        who.kind === 'person' ? people !== undefined && !people.has(who.person) : isDangling(definition, who);
      if (gone) say(place, `the ${who.kind} ${id ?? ''}`, 'Remove the line or choose another subject.');
      for (const what of when ? goneIn(definition, when) : []) say(place, what, 'Change the condition.');
    }
  }
  for (const { name, condition } of [...definition.groups, ...definition.conditions])
    for (const what of goneIn(definition, condition)) say(name, what, 'Change the condition.');
  return found;
}
