import type { Access } from '../deciding/access';
import { counts, type Person } from '../deciding/viewer';

/** Does this viewer hold the privilege to look as others, everywhere? */
export function holdsStandIn({ compiled, held }: Access): boolean {
  const { standIn } = compiled.definition;
  return (
    standIn !== undefined &&
    held.isSpokenOf({ kind: 'privilege', privilege: standIn.privilege })('be true') === true
  );
}

/** Has the builder allowed every role that the person holds now to be stood in for in full? */
export function standsInFull({ compiled }: Access, { assignments }: Person, moment: number): boolean {
  const held = assignments.filter((one) => counts(one, moment));
  return held.length > 0 && held.every((one) => compiled.tree.role(one.role)?.standInFull === true);
}
