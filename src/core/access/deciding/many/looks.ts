import { operandsOf, type Condition, type Operand } from '../../../condition/condition';
import { allNamed } from '../../../condition/named';
import { typeOf } from '../../../condition/type';
import type { Definition } from '../../../model/definition';
import type { Id } from '../../../model/id';
import { conditionKey } from '../reads';
import type { Viewer } from '../viewer';

/** What a condition looks at, with all that it names. */
export interface Looks {
  readonly key: string;
  /** The time, or a session. */
  readonly when: boolean;
  readonly record: boolean;
  /** What somebody holds. */
  readonly roles: boolean;
  readonly user: readonly Id[];
  /** Those attributes of which no more is asked than how they compare with what a record holds. */
  readonly compared: ReadonlySet<Id>;
}

export function looksOf(definition: Definition, condition: Condition): Looks {
  const parts = allNamed(definition, condition);
  const operands = parts.flatMap(operandsOf);
  const ofEntities = new Set(
    definition.conditions.flatMap(({ id, entity }) => (entity === undefined ? [] : [id])),
  );
  return {
    key: conditionKey(condition),
    when: operands.some((one) => 'clock' in one || 'session' in one),
    record:
      operands.some((one) => 'record' in one) ||
      parts.some((one) => 'meets' in one && ofEntities.has(one.meets)),
    roles: parts.some((one) => 'hasRole' in one || 'hasPrivilege' in one),
    user: [...new Set(operands.flatMap(userIn))],
    compared: comparedIn(definition, parts),
  };
}

const userIn = (operand: Operand): Id[] => ('user' in operand ? [operand.user] : []);

/**
 * Of conditions with all that they name: the attributes that are only compared with what a record holds. Of a unit it
 * matters also whether there is such a one.
 */
export function comparedIn(definition: Definition, parts: readonly Condition[]): Set<Id> {
  const [compared, other] = [new Set<Id>(), new Set<Id>()];
  for (const one of parts) {
    const operands = operandsOf(one);
    const isCompared = 'compare' in one && operands.some((each) => 'record' in each);
    for (const id of operands.flatMap(userIn)) {
      const isUnit = typeOf({ definition }, { user: id })?.kind === 'unit';
      (isCompared && !isUnit ? compared : other).add(id);
    }
  }
  return new Set([...compared].filter((id) => !other.has(id)));
}

/**
 * What tells viewers apart for a condition that does not ask what they hold. For whom it holds, what is only compared
 * with records does not matter, but whether it is there; which formula it is, it does.
 */
export function alikeFor({ user, compared }: Looks, viewer: Viewer, exactly: boolean): string {
  if (viewer.kind === 'signed-out') return 'out';
  const { attributes, groups } = viewer;
  if (!attributes) return `kind ${JSON.stringify(groups)}`;
  const values = user.map((id) => {
    const value = attributes[id] ?? null;
    return value === null || exactly || !compared.has(id) ? value : true;
  });
  return JSON.stringify([groups, values]);
}
