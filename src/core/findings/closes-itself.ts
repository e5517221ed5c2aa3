import { allWithin, operandsOf } from '../condition/condition';
import { gives } from '../model/gate';
import type { AppElement } from '../model/tree';
import type { Check } from './finding';
import { removingLine } from './mends';
import { called, sentence } from './words';

/**
 * A section opens by a field that stands only in it: where it is closed, nobody on the screen can open it; once the field
 * is another, it shuts.
 *
 * Has it: a section "where the item is on loan" that holds the tick box "On loan".
 * Has it not: the tick box beside the section.
 */
export const closesItself: Check = {
  kind: 'closes-itself',
  rank: 'not-meant',
  title: 'Element depends on a field inside it',
  *find(context) {
    const { definition, tree, compiled } = context;
    for (const [id, { lines }] of Object.entries(definition.gates)) {
      const element = tree.get(id);
      if (element?.kind !== 'section' && element?.kind !== 'face' && element?.kind !== 'field') continue;
      for (const [at, line] of lines.entries()) {
        if (!line.when || !gives(line)) continue;
        const asked = allWithin(line.when)
          .flatMap(operandsOf)
          .flatMap((one) => ('record' in one && one.through === undefined ? [one.record] : []));
        for (const field of new Set(asked)) {
          const parts = compiled.handles
            .fieldsOf(field, 'existing')
            .filter(({ screen }) => screen === element.screen)
            .map((one) => one.element);
          if (parts.length === 0 || !parts.every((part) => isIn(part, element))) continue;
          if (lines.some((other) => other !== line && other.what === 'edit' && !other.when)) continue;
          yield {
            reason: sentence(
              `${called(element)} opens depending on ${tree.get(field)?.name ?? field} (line ${at + 1}), but this field can only be filled in inside it.`,
            ),
            places: [id, ...parts.map((part) => part.id)],
            whom: [],
            mends: [removingLine(context, { element, line, at })],
          };
        }
      }
    }
  },
};

function isIn(part: AppElement, element: AppElement): boolean {
  for (let at: AppElement | undefined = part; at; at = at.container) if (at === element) return true;
  return false;
}
