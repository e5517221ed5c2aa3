import { accessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { type Person, SIGNED_OUT, viewerOfPerson, viewerOfRole } from '@/core/access/deciding/viewer';
import { applyEdit } from '@/core/edit/edits/apply';
import type { Edit } from '@/core/edit/edits/edit';
import { removeNamed, removePrivilege } from '@/core/edit/edits/make';
import { wideningOf } from '@/core/edit/comparing/widening';
import { wideningInWords } from '@/core/edit/comparing/words';
import type { Definition } from '@/core/model/definition';
import { Draw, drawCircumstances, drawDefinition, drawRecord, drawViewer } from './arbitrary';
import { found, runs } from '../runs';

/** A random edit that deletes something, with all that names it. */
function drawDeletion(draw: Draw, definition: Definition): Edit | undefined {
  const [unit] = definition.units;
  return draw.one([
    ...definition.roles.map(({ id }) => removeNamed(definition, 'roles', id)),
    ...definition.groups.map(({ id }) => removeNamed(definition, 'groups', id)),
    ...['q1', 'q2'].map((id) => removePrivilege(definition, id)),
    unit && ({ do: 'removeItem', list: 'units', at: 0, item: unit } as const),
  ]);
}

describe('deleting anything', () => {
  it('widens nobody unseen: whoever gets more is named before', () => {
    let [deleted, widened] = [0, 0];
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const before = drawDefinition(draw);
        const edit = drawDeletion(draw, before);
        const made = edit && applyEdit(before, edit);
        if (!made?.ok) return;
        deleted++;
        const people = draw.many(
          4,
          (): Person => {
            const viewer = drawViewer(draw);
            const signedIn = viewer.kind === 'signed-in' ? viewer : { assignments: [], attributes: {} };
            const { assignments, attributes = {} } = signedIn;
            return { id: draw.id('p'), name: draw.id('Name '), active: true, assignments, attributes };
          },
          2,
        );
        const found = wideningOf(before, made.value, people);
        const named = new Set(found?.who);
        if (found) expect(wideningInWords(before, found, people)).toMatch(/would gain access: /);
        const at = { ...drawCircumstances(draw), moment: Date.now() };
        const [was, is] = [compile(before), compile(made.value)];
        const everybody = [
          ['signed-out', SIGNED_OUT] as const,
          ...made.value.roles.map(({ id }) => [`role:${id}`, viewerOfRole(id)] as const),
          ...people.map((one) => [`person:${one.id}`, viewerOfPerson(one)] as const),
        ];
        for (const [key, viewer] of everybody) {
          const [then, now] = [accessOf(was, viewer, at), accessOf(is, viewer, at)];
          for (const element of is.tree.elements) {
            const old = was.tree.get(element.id);
            if (!old) continue;
            const entity = is.tree.recordOf(element);
            const record = entity && drawRecord(draw, before, entity);
            if (now.level(element, record) <= then.level(old, record)) continue;
            expect(named).toContain(key);
            widened++;
          }
        }
      }),
      { numRuns: runs(150), endOnFailure: true },
    );
    expect(deleted).toBeGreaterThan(found(70));
    expect(widened).toBeGreaterThanOrEqual(found(1));
  });
});
