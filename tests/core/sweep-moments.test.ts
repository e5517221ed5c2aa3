import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Grants } from '@/core/access/deciding/grants';
import { bind } from '@/core/condition/bind';
import { allNamed } from '@/core/condition/named';
import { parse } from '@/core/condition/parse';
import { reachable } from '@/core/condition/reachable';
import { SIGNED_OUT } from '@/core/access';
import { type Definition, treeOf } from '@/core/model';
import { sweepMoments } from '@/core/sweep';
import { LARKFIELD } from '@/demo/definition';
import { runs } from '../runs';

const SATURDAY = Date.parse('2026-11-28T12:00:00Z');

/** The demo with just one line, on its button for couriers. */
function asking(text: string, timeZone = LARKFIELD.timeZone): Definition {
  const bare = { ...LARKFIELD, timeZone, gates: {} };
  const element = treeOf(bare).get('b_courier');
  const read = parse({ definition: bare, entity: element && treeOf(bare).recordOf(element) }, text);
  if (!read.ok) throw new Error(JSON.stringify(read));
  const line = { id: 'line', who: { kind: 'everyone' }, what: 'edit', when: read.value } as const;
  return { ...bare, gates: { b_courier: { lines: [line] } } };
}

/** In which ways the line's condition is answered at these moments, and all that it is made of. */
function answers(definition: Definition, moments: readonly number[]): Set<boolean>[] {
  const when = definition.gates['b_courier']?.lines[0]?.when;
  if (!when) throw new Error('There is no condition');
  return allNamed(definition, when).map(
    (condition) =>
      new Set(
        moments.map((moment) => {
          const { facts } = new Grants(definition, SIGNED_OUT, { moment });
          return bind(facts, { definition }, condition, 'be true') === true;
        }),
      ),
  );
}

describe('the times at which a sweep asks', () => {
  it.each([
    ['none, where no line asks of the clock', 'record.status = out', 0],
    ['few, around opening hours', 'weekday in (monday, tuesday) and time >= 09:00 and time < 17:30', 3],
    ['the other side of a day of the month', 'day = 31', 1],
    ['before a moment', 'now > 2026-06-01T09:00', 1],
    ['after a day', 'today > 2030-01-01', 1],
    ['none for what never comes', 'day > 40', 0],
  ])('are %s: %s', (_, text, most) => {
    const definition = asking(text);
    const moments = sweepMoments(definition, SATURDAY);
    expect(moments.length).toBeLessThanOrEqual(most);
    if (most > 0) expect(moments.length).toBeGreaterThan(0);
  });

  it('show all that asks of the clock both ways, where there are both', () => {
    const hour = fc.integer({ min: 0, max: 23 }).map((n) => `${String(n).padStart(2, '0')}:00`);
    const atom = fc.oneof(
      fc.constantFrom('weekday = sunday', 'weekday in (monday, friday)', 'day = 1', 'day >= 15'),
      fc.tuple(fc.constantFrom('<', '>='), hour).map(([is, at]) => `time ${is} ${at}`),
    );
    const text = fc
      .tuple(atom, atom, fc.constantFrom('and', 'or'))
      .map(([one, other, join]) => `${one} ${join} ${other}`);
    const zone = fc.constantFrom('Europe/London', 'Pacific/Auckland', 'UTC');
    const now = fc.date({
      min: new Date('2024-01-01'),
      max: new Date('2030-01-01'),
      noInvalidDate: true,
    });
    fc.assert(
      fc.property(text, zone, now, (condition, timeZone, at) => {
        const definition = asking(condition, timeZone);
        const moments = [at.getTime(), ...sweepMoments(definition, at.getTime())];
        const all = allNamed(definition, definition.gates['b_courier']?.lines[0]?.when ?? { all: [] });
        for (const [n, seen] of answers(definition, moments).entries()) {
          const part = all[n];
          const can = part && reachable({ definition }, part);
          expect([part, seen.has(true), seen.has(false)]).toEqual([part, can?.isTrue, can?.isFalse]);
        }
      }),
      { numRuns: runs(200), endOnFailure: true },
    );
  });
});
