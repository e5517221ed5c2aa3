/** Findings: what is probably wrong with a definition, each with its reason and its mends. */
import type { KeyedViewer } from '../access/deciding/viewer-key';
import type { Definition } from '../model/definition';
import { CHECKS } from './checks';
import { Context } from './context';
import type { Check, Finding } from './finding';

export { basisOf, keyOfFinding } from './basis';
export { CHECKS } from './checks';
export { editOfMend } from './removing';
export { type Finding, keysOf, type Rank } from './finding';

/**
 * What is probably wrong, the worst first: found for login states, roles, groups and these people, at any time and
 * whatever sessions hold. `moment` is what assignments with a period are counted at; `checks` are all, where nothing else is
 * asked for.
 *
 * @example
 * findingsIn(LARKFIELD, [], 0)[0]?.kind // → 'open-by-signing-up'
 */
export function findingsIn(
  definition: Definition,
  people: readonly KeyedViewer[],
  moment: number,
  checks: readonly Check[] = CHECKS,
): readonly Finding[] {
  const context = new Context(definition, people, moment);
  return checks.flatMap(({ kind, rank, find }) =>
    [...find(context)].map((found) => ({ kind, rank, ...found })),
  );
}
