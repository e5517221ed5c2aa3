import { operandsOf, type Condition, type Operand } from './condition';

/** The constants that this operand is compared with. */
export function constantsFor(operand: Operand, asked: readonly Condition[]): string[] {
  const same = JSON.stringify(operand);
  const found = asked
    .filter((one) => operandsOf(one).some((other) => JSON.stringify(other) === same))
    .flatMap((one) => [
      ...('oneOf' in one ? one.values : []),
      ...operandsOf(one).flatMap((other) => ('value' in other ? [other.value] : [])),
    ]);
  return [...new Set(found.filter((value) => typeof value === 'string'))];
}
