import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bind } from '@/core/condition/bind';
import { addDays, readClock } from '@/core/condition/clock';
import { holds } from '@/core/condition/formula';
import { parse } from '@/core/condition/parse';
import { reachable } from '@/core/condition/reachable';
import { Grants } from '@/core/access/deciding/grants';
import type { Entity } from '@/core/model/definition';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCircumstances, drawCondition, drawDefinition, drawRecord, drawViewer } from './arbitrary';
import { runs } from '../runs';

const loan = LARKFIELD.entities.find(({ id }) => id === 'loan') as Entity;
const scope = { definition: LARKFIELD, entity: loan };

/** Is it never true, always, or either, perhaps from a day on? */
function answersTo(text: string, from?: string): 'never' | 'always' | 'either' {
  const read = parse(scope, text);
  if (!read.ok) throw new Error(`${read.problem.place}: ${read.problem.message}`);
  const answers = reachable(scope, read.value, from);
  return answers?.isTrue ? (answers.isFalse ? 'either' : 'always') : 'never';
}

describe('which answers a condition can have', () => {
  it.each<[text: string, is: 'never' | 'always' | 'either']>([
    ['day > 40', 'never'],
    ['day < 40', 'always'],
    ['day = 31', 'either'],
    ['weekday = monday and weekday = friday', 'never'],
    ['weekday = monday and day = 31', 'either'],
    ['time >= 22:00 and time < 06:00', 'never'],
    ['time >= 22:00 or time < 06:00', 'either'],
    // Clocks in London go forward on 28 March 2027, from 01:00 to 02:00.
    ['today = 2027-03-28 and time >= 01:10 and time <= 01:40', 'never'],
    ['today = 2027-03-29 and time >= 01:10 and time <= 01:40', 'either'],
    ['today = 2027-03-29 and weekday = monday', 'either'],
    ['today = 2027-03-29 and weekday = sunday', 'never'],
    ['record.status = out and record.status = returned', 'never'],
    ['record.fee > 3 and record.fee < 4', 'either'],
    ['record.fee > 4 and record.fee < 3', 'never'],
    ['record.due_back < 2026-01-02 and record.due_back > 2026-01-01', 'never'],
    ['record.borrower starts with "a" and record.borrower ends with "b"', 'either'],
    ['record.borrower = "a" and record.borrower contains "b"', 'never'],
    ['record.borrower is empty and record.borrower = "x"', 'never'],
    ['user has role "Registrar" and not user has role "Registrar"', 'never'],
    ['user.email = record.borrower', 'either'],
  ])('%s: %s', (text, is) => expect(answersTo(text)).toBe(is));

  it.each<[text: string, is: 'never' | 'always' | 'either']>([
    ['today = 2026-06-14', 'never'],
    ['today = 2026-06-15', 'either'],
    ['today < 2026-06-15', 'never'],
    ['today >= 2026-06-15', 'always'],
    ['today >= 2026-01-01 and today <= 2026-12-31', 'either'],
    ['today + 30 days = 2026-07-01', 'never'],
    ['now < 2026-06-14T12:00', 'never'],
    ['weekday = monday and day = 31', 'either'],
    ['time >= 22:00', 'either'],
  ])('from 15 June 2026 on: %s: %s', (text, is) => expect(answersTo(text, '2026-06-15')).toBe(is));

  it('are looked for on other days than one on which a clock change leaves out hours', () =>
    expect(answersTo('today >= 2026-01-01 and time >= 01:10 and time <= 01:40', '2027-03-28')).toBe(
      'either',
    ));

  it('hold all that come about for anybody, on any record, at any time', () => {
    let told = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const entity = draw.one(definition.entities);
        const condition = drawCondition(draw, entity, 3);
        const on = { definition, entity };
        const at = drawCircumstances(draw);
        const { today } = readClock(at.moment, definition.timeZone);
        const answers = reachable(on, condition, draw.one([undefined, today, addDays(today, -400)]));
        if (!answers) return;
        const { facts } = new Grants(definition, drawViewer(draw), at);
        const record = drawRecord(draw, definition, entity);
        const is = (must: 'be true' | 'be false'): boolean => holds(bind(facts, on, condition, must), record);
        if (is('be true')) expect(answers.isTrue).toBe(true);
        if (is('be false')) expect(answers.isFalse).toBe(true);
        told++;
      }),
      { numRuns: runs(1500), endOnFailure: true },
    );
    expect(told).toBeGreaterThan(100);
  });
});
