import fc from 'fast-check';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { readDefinition, viewerOfRole } from '@/core';
import type { ShownField, ShownSection } from '@/core/access';
import type { Condition } from '@/core/condition';
import type { Definition, Line, Part, Screen } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { sectionsBeforeSaving } from '@/server/live/before-saving';
import { pageAt } from '@/server/live/screen-page';
import { recordBeforeSaving } from '@/server/records/write';
import { knownRecord, openRecord, type RecordScope } from '@/server/records/read';
import { Refused } from '@/server/http/problem';
import { drawDefinition, drawSomebody, drawValues, Draw } from '../core/arbitrary';
import { application, dropApplications, emptyDatabase, put, scopeFor } from './setting';
import { change } from './writing';

beforeAll(emptyDatabase);
beforeEach(dropApplications);

const idsIn = (sections: readonly ShownSection[]): string[] =>
  sections.flatMap(({ parts }) => parts.map(({ id }) => id));
const fieldsIn = (sections: readonly ShownSection[]): ShownField[] =>
  sections.flatMap(({ parts }) => parts.filter((part) => part.kind === 'field'));
const openAt = async (scope: RecordScope, address: string): Promise<readonly ShownSection[]> => {
  const outcome = await pageAt(scope, address, new URLSearchParams());
  return outcome.is === 'open' ? outcome.page.screen.sections : [];
};

/** The screen with a section more, in which all of its record can be written. */
function withForm({ entities }: Definition, screen: Screen): Screen {
  const fields = entities.find(({ id }) => id === screen.binds?.entity)?.fields ?? [];
  const parts: Part[] = fields.map(({ id }) => ({ kind: 'field', id: `form_${screen.id}_${id}`, field: id }));
  const save: Part = { kind: 'button', id: `save_${screen.id}`, name: 'Save', effect: { do: 'save' } };
  if (screen.binds?.record !== 'existing') return screen;
  return {
    ...screen,
    sections: [...screen.sections, { id: `form_${screen.id}`, name: 'Form', parts: [...parts, save] }],
  };
}

describe('a form before it is saved', () => {
  it('tells nothing that saving would not tell, and stores nothing', async () => {
    let [compared, opened] = [0, 0];
    await fc.assert(
      fc.asyncProperty(fc.gen(), async (value) => {
        const draw = new Draw(value);
        await dropApplications();
        const drawn = drawDefinition(draw);
        // Few gates: where all is gated at random, hardly anything can be written.
        const gated = draw.some(Object.entries(drawn.gates), 15).filter(([id]) => id !== 'app');
        const everyone: Line = { id: 'everyone', who: { kind: 'everyone' }, what: 'edit' };
        const definition: Definition = {
          ...drawn,
          areas: drawn.areas.map((area) => ({
            ...area,
            screens: area.screens.map((one) => withForm(drawn, one)),
          })),
          gates: {
            ...Object.fromEntries(gated),
            app: { lines: [everyone] },
            // On some forms a tick box opens a field.
            ...Object.fromEntries(
              draw
                .some(drawn.areas.flatMap((area) => area.screens))
                .filter(({ binds }) => binds?.record === 'existing')
                .map(({ id, binds }) => {
                  const left = { record: `${binds?.entity ?? ''}_shown` };
                  const when: Condition = { compare: '=', left, right: { value: true } };
                  return [`form_${id}_${binds?.entity ?? ''}_title`, { lines: [{ ...everyone, when }] }];
                }),
            ),
          },
        };
        await application(definition);
        for (const entity of definition.entities)
          for (const id of ['k1', 'k2']) await put(definition, entity.id, id, drawValues(draw, entity));
        const screens = definition.areas
          .flatMap((area) => area.screens)
          .filter(({ binds }) => binds?.record === 'existing');
        for (const screen of screens) {
          const entity = definition.entities.find(({ id }) => id === screen.binds?.entity);
          if (!entity) continue;
          const scope = scopeFor(definition, drawSomebody(draw));
          const address = `${screen.address}/k1`;
          const now = await openAt(scope, address);
          const written = Object.fromEntries(
            draw.some(Object.entries(drawValues(draw, entity)), 40).map(([id, one]) => [id, one]),
          );
          if (draw.chance(60)) written[`${entity.id}_shown`] = true;
          const before = await sectionsBeforeSaving(scope, { address, values: written }).catch(
            (error: unknown) => {
              if (error instanceof Refused && error.status === 404) return undefined;
              throw error;
            },
          );
          if (!before) {
            expect(now).toEqual([]);
            continue;
          }
          expect(await openAt(scope, address)).toEqual(now);
          for (const field of fieldsIn(before)) {
            const there = fieldsIn(now).find(({ id }) => id === field.id);
            expect([field.value, field.text]).toEqual([there?.value ?? null, there?.text ?? '']);
          }
          // What of it could be written is, for good: then there is nothing more to be seen than was told.
          const stored = await openRecord(scope, entity, 'k1');
          const known = stored && (await knownRecord(scope, entity, stored));
          const proposed = known && (await recordBeforeSaving(scope, entity, known, written));
          if (!known || !proposed) {
            expect(idsIn(before)).toEqual(idsIn(now));
            continue;
          }
          compared++;
          const kept = Object.fromEntries(
            Object.entries(proposed.values).filter(([id, one]) => known.values[id] !== one),
          );
          await change(scope, { keep: true }, entity, 'k1', kept);
          const then = new Set(idsIn(await openAt(scope, address)));
          for (const id of idsIn(before)) expect([id, then.has(id)]).toEqual([id, true]);
          if (idsIn(before).some((id) => !idsIn(now).includes(id))) opened++;
        }
      }),
      { numRuns: 60, endOnFailure: true },
    );
    expect(compared).toBeGreaterThan(5);
    expect(opened).toBeGreaterThan(0);
  });

  const line = (what: Line['what'], shown: boolean): Line => ({
    id: `only-${String(shown)}`,
    who: { kind: 'signed-in' },
    what,
    when: { compare: '=', left: { record: 'item_shown' }, right: { value: shown } },
  });
  // The box *on display* opens the notes, and stands in what it opens.
  const opening: Definition = {
    ...LARKFIELD,
    gates: { ...LARKFIELD.gates, p_item_notes: { lines: [line('edit', true)] } },
  };

  it('opens at once what a tick box opens, with its control and without what is stored in it', async () => {
    expect(readDefinition(JSON.parse(JSON.stringify(opening))).ok).toBe(true);
    await application(opening);
    await put(opening, 'item', 'k1', { item_title: 'Ewer', item_shown: false, item_notes: 'a secret' });
    const ask = (viewer: string, values: object) =>
      sectionsBeforeSaving(scopeFor(opening, viewerOfRole(viewer)), { address: 'items/k1', values });
    const notes = (sections: readonly ShownSection[]) =>
      fieldsIn(sections).find(({ field }) => field === 'item_notes');
    expect(notes(await ask('head', {}))).toBeUndefined();
    const opened = notes(await ask('head', { item_shown: true }));
    expect(opened).toMatchObject({ value: null, text: '', input: { type: { kind: 'text' } } });
    // Who may not tick the box is told nothing by ticking it.
    expect(notes(await ask('auditor', { item_shown: true }))).toBeUndefined();
    await expect(ask('lender', { item_shown: true })).rejects.toMatchObject({ status: 404 });
    const saved = await change(
      scopeFor(opening, viewerOfRole('head')),
      { keep: true },
      LARKFIELD.entities[0] as (typeof LARKFIELD.entities)[number],
      'k1',
      { item_shown: true, item_notes: 'written at once' },
    );
    expect(saved.values['item_notes']).toBe('written at once');
  });
});
