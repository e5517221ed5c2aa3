import { operandsOf, type Condition } from '../../condition/condition';
import type { Id } from '../../model/id';

/** Does the condition itself, without those within it, ask of something among these? */
export const asksOf = (condition: Condition, gone: ReadonlySet<Id>): boolean =>
  ('meets' in condition && gone.has(condition.meets)) ||
  operandsOf(condition).some(
    (operand) =>
      'record' in operand &&
      (gone.has(operand.record) || (operand.through !== undefined && gone.has(operand.through))),
  );

/**
 * The condition without what it asks of things that are gone: these are taken for `assumed`, whatever stands around
 * them. True or false, where nothing else is left to ask.
 *
 * @param assumed false where the condition gives something, true where it takes something away: in doubt, closed
 */
export function settled(condition: Condition, gone: ReadonlySet<Id>, assumed: boolean): Condition | boolean {
  if ('not' in condition) {
    const inner = settled(condition.not, gone, !assumed);
    return typeof inner === 'boolean' ? !inner : inner === condition.not ? condition : { not: inner };
  }
  const all = 'all' in condition;
  if (all || 'any' in condition) {
    const parts = all ? condition.all : condition.any;
    const left = parts.map((one) => settled(one, gone, assumed));
    if (left.every((one, n) => one === parts[n])) return condition;
    // In all of them, one that is false decides; in any of them, one that is true.
    if (left.includes(!all)) return !all;
    const kept = left.filter((one): one is Condition => typeof one !== 'boolean');
    const [only, ...more] = kept;
    if (!only) return all;
    return more.length === 0 ? only : all ? { all: kept } : { any: kept };
  }
  return asksOf(condition, gone) ? assumed : condition;
}
