import { gives, sameWho, type Line, type Who } from '../model/gate';
import { isDangling } from '../model/dangling-references';
import { sameJson } from '../model/same-json';
import { rolesById, withIncluded } from '../model/tree';
import { unitAndBelow } from '../model/units';
import type { Definition } from '../model/definition';

/** Does the wider one speak of everybody of whom the narrower one does, whoever that is? Told for sure only. */
export function covers(definition: Definition, wider: Who, narrower: Who): boolean {
  if (isDangling(definition, wider) || isDangling(definition, narrower)) return false;
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

const STRENGTH = { see: 1, edit: 2, 'at-most-see': 1, block: 2 } as const;

interface Numbered {
  readonly line: Line;
  readonly at: number;
}

/**
 * Does another line of the same gate do all that the line does, whoever it is? Of two that say the same, the earlier one
 * does it for the later one.
 */
export function isCoveredBy(definition: Definition, one: Numbered, other: Numbered): boolean {
  const does = (line: Line, by: Line): boolean =>
    gives(line) === gives(by) &&
    STRENGTH[by.what] >= STRENGTH[line.what] &&
    (by.when === undefined || sameJson(by.when, line.when)) &&
    covers(definition, by.who, line.who);
  return does(one.line, other.line) && (other.at < one.at || !does(other.line, one.line));
}

/** The lines without those that others cover. */
export const withoutCovered = (definition: Definition, lines: readonly Line[]): readonly Line[] =>
  lines.filter(
    (line, at) =>
      !lines.some((one, n) => n !== at && isCoveredBy(definition, { line, at }, { line: one, at: n })),
  );
