import type { Who } from '../model/gate';
import { sameWho } from '../model/gate';
import { isGone } from '../model/gone';
import { rolesById, withIncluded } from '../model/tree';
import { unitAndBelow } from '../model/units';
import type { Definition } from '../model/definition';

/** Does the wider one speak of everybody of whom the narrower one does, whoever that is? Told for sure only. */
export function covers(definition: Definition, wider: Who, narrower: Who): boolean {
  if (isGone(definition, wider) || isGone(definition, narrower)) return false;
  if (sameWho(wider, narrower) || wider.kind === 'everyone') return true;
  if (wider.kind === 'signed-in') return narrower.kind !== 'everyone' && narrower.kind !== 'signed-out';
  if (wider.kind === 'unit')
    return narrower.kind === 'unit' && (unitAndBelow(definition, wider.unit)?.has(narrower.unit) ?? false);
  if (narrower.kind !== 'role') return false;
  const held = withIncluded(definition, [narrower.role]);
  if (wider.kind === 'role') return !wider.exactly && held.has(wider.role);
  return (
    wider.kind === 'privilege' &&
    [...held].some((id) => rolesById(definition).get(id)?.privileges.includes(wider.privilege))
  );
}

/** Can somebody be spoken of by both? */
export function canBeBoth(one: Who, other: Who): boolean {
  const out = [one, other].filter(({ kind }) => kind === 'signed-out').length;
  return out === 0 || out === 2 || [one, other].some(({ kind }) => kind === 'everyone');
}
