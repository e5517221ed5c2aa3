import type { Grants } from '../deciding/grants';
import type { RecordFacts } from '../../condition/atom';
import { bind } from '../../condition/bind';
import type { Condition } from '../../condition/condition';
import { holds } from '../../condition/formula';
import type { Scope } from '../../condition/type';

/** For whom, and on which records, a condition is true now. Both by their place in what was given. */
export interface ConditionMatch {
  readonly people: readonly number[];
  readonly records: readonly number[];
}

/**
 * Tries a condition: the people for whom it is true on some record (or at all, where it asks of none), and
 * the records on which it is true for somebody.
 */
export function tryCondition(
  scope: Scope,
  condition: Condition,
  people: readonly Grants[],
  records: readonly RecordFacts[],
): ConditionMatch {
  const onRecords = new Set<number>();
  const forPeople: number[] = [];
  people.forEach((held, n) => {
    const formula = bind(held.facts, scope, condition, 'be true');
    if (formula === false) return;
    const hits = records.flatMap((record, m) => (holds(formula, record) ? [m] : []));
    for (const hit of hits) onRecords.add(hit);
    if (formula === true || hits.length > 0) forPeople.push(n);
  });
  return { people: forPeople, records: [...onRecords].sort((a, b) => a - b) };
}
