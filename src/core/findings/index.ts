/** Findings: what is probably wrong with a definition, each with its reason and its mends. */
import type { KeyedViewer } from '../access/deciding/viewer-key';
import type { Definition } from '../model/definition';
import { CHECKS } from './checks';
import { Context } from './context';
import type { Check, Finding, Fix, ProposedMend } from './finding';
import { keepsPromise } from './promise';

export { basisOf, keyOfFinding } from './basis';
export { CHECKS } from './checks';
export { editOfMend } from './mends';
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
  return [...eachFinding(definition, people, moment, checks)];
}

/** The same, each as soon as it is found. */
export function* eachFinding(
  definition: Definition,
  people: readonly KeyedViewer[],
  moment: number,
  checks: readonly Check[] = CHECKS,
): Generator<Finding, void> {
  const context = new Context(definition, people, moment);
  for (const { kind, rank, find } of checks)
    for (const { mends, ...found } of find(context))
      yield { kind, rank, ...found, mends: offered(context, mends) };
}

/** Those that do what they say: of those that say the same, the first. */
function offered(context: Context, mends: readonly ProposedMend[]): Fix[] {
  const found: Fix[] = [];
  for (const { to, ...mend } of mends)
    if (!found.some(({ says }) => says === mend.says) && keepsPromise(context, to ? { ...mend, to } : mend))
      found.push(mend);
  return found;
}
