import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessOf, type Access } from '@/core/access/deciding/access';
import { compile } from '@/core/access/deciding/compile';
import type { Answer } from '@/core/access/deciding/level';
import type { Rule } from '@/core/access/deciding/rule';
import type { Circumstances, Viewer } from '@/core/access/deciding/viewer';
import { conditionsOf } from '@/core/access/deciding/reads';
import { addDays, momentOf, readClock } from '@/core/condition/clock';
import { allWithin, operandsOf } from '@/core/condition/condition';
import type { Formula } from '@/core/condition/formula';
import { compareReach } from '@/core/edit/comparing/access-differences';
import type { Definition } from '@/core/model/definition';
import { sameJson } from '@/core/model/same-json';
import type { AppElement } from '@/core/model/tree';
import { treeOf } from '@/core/model/tree';
import { Draw, drawCircumstances, drawDefinition, drawLine, drawViewer } from './arbitrary';
import { found, runs } from '../runs';

/**
 * Who gets what otherwise, read plainly: every viewer and every element by themselves, at every time that any condition
 * asks for.
 */
function plainly(before: Definition, after: Definition, viewers: readonly Viewer[], at: Circumstances) {
  const [old, now] = [compile(before), compile(after)];
  const ids = new Set([...now.tree.elements, ...old.tree.elements].map(({ id }) => id));
  const times = everyTime([before, after], at);
  const told: string[] = [];
  viewers.forEach((viewer, n) => {
    const sides = (when: Circumstances): Sides => [accessOf(old, viewer, when), accessOf(now, viewer, when)];
    const open = { moment: at.moment, whenever: true };
    const varies = [old, now].some((one) => one.asksUnknown(viewer, open));
    const [here, whenever] = [sides(at), sides(open)];
    const then = varies ? times.map(sides) : [];
    for (const id of ids) {
      const [was, is] = [old.tree.get(id), now.tree.get(id)];
      const differs = differenceOf(here, was, is);
      const differsOpen = differs || !varies ? undefined : differenceOf(whenever, was, is);
      if (differs) told.push(`${id} ${n} ${JSON.stringify(differs)} now`);
      else if (differsOpen) told.push(`${id} ${n} ${JSON.stringify(differsOpen)} elsewhen`);
      else if (varies && (depends(whenever[0], was) || depends(whenever[1], is)))
        if (then.some((one) => differenceOf(one, was, is))) told.push(`${id} ${n} then`);
    }
  });
  return told.sort();
}

const depends = (access: Access, element: AppElement | undefined): boolean =>
  element !== undefined && !sameRule(access.rule(element), access.most.rule(element));

/** Are both made of the same, in any order and however often? */
const sameRule = (a: Rule, b: Rule): boolean =>
  sameJson(plain(a.see), plain(b.see)) && sameJson(plain(a.edit), plain(b.edit));

function plain(formula: Formula): Formula {
  if (typeof formula === 'boolean' || !('all' in formula || 'any' in formula)) return formula;
  const isAll = 'all' in formula;
  const within = (isAll ? formula.all : formula.any).map(plain).flatMap((one): readonly Formula[] => {
    if (typeof one === 'boolean') return [one];
    return (isAll ? 'all' in one && one.all : 'any' in one && one.any) || [one];
  });
  const texts = [...new Set(within.map((one) => JSON.stringify(one)))].sort();
  const [first = isAll, ...others] = texts.map((one) => JSON.parse(one) as Formula);
  if (others.length === 0) return first;
  return isAll ? { all: [first, ...others] } : { any: [first, ...others] };
}

type Sides = readonly [Access, Access];

function differenceOf([old, now]: Sides, was: AppElement | undefined, is: AppElement | undefined) {
  const nothing: Answer = { least: 0, most: 0 };
  const [then, next] = [was ? old.answer(was) : nothing, is ? now.answer(is) : nothing];
  const same =
    sameJson(then, next) &&
    (!was ||
      !is ||
      (sameRule(old.rule(was), now.rule(is)) && sameRule(old.most.rule(was), now.most.rule(is))));
  return same ? undefined : [then, next];
}

/** Times on both sides of all that is asked for: of those that no condition tells apart, one. */
function everyTime(definitions: readonly Definition[], { moment }: Circumstances): Circumstances[] {
  const moments = new Map<string, number>();
  for (const { timeZone } of definitions) {
    const parts = definitions.flatMap(conditionsOf).flatMap(allWithin);
    const asks = (clock: string) =>
      parts.filter((one) => operandsOf(one).some((each) => 'clock' in each && each.clock === clock));
    const constantsOf = (clock: string): string[] =>
      asks(clock).flatMap((one) => {
        const plus = operandsOf(one).flatMap((each) => ('clock' in each ? [each.plus ?? 0] : []))[0] ?? 0;
        return [
          ...operandsOf(one).flatMap((each) => ('value' in each ? [String(each.value)] : [])),
          ...('oneOf' in one ? one.values.map(String) : []),
        ].map((text) => (clock === 'today' ? addDays(text, -plus) : text));
      });
    const constants = Object.fromEntries(CLOCKS.map((clock) => [clock, constantsOf(clock)]));
    // Where it is compared with what a record holds, each day may be another one.
    const each = ['today', 'now'].some((clock) =>
      asks(clock).some((one) => operandsOf(one).some((operand) => 'record' in operand || 'user' in operand)),
    );
    const { today, time } = readClock(moment, timeZone);
    const days = [
      ...Array.from({ length: asks('day').length > 0 ? 62 : 7 }, (_, n) => addDays(today, n)),
      ...constantsOf('today').flatMap((date) => [-1, 0, 1].map((by) => addDays(date, by))),
    ];
    const local = [
      ...days.flatMap((day) => [time, ...constantsOf('time')].map((one) => `${day}T${one}`)),
      ...constantsOf('now'),
    ];
    const found = local.map((text) => momentOf(text, timeZone)).filter((one) => !Number.isNaN(one));
    for (const one of [moment, ...found.flatMap((at) => [at - 60_000, at])]) {
      const clock = readClock(one, timeZone);
      const tells = CLOCKS.flatMap((name) =>
        (constants[name] ?? []).map((text) => order(name, clock[name], text)),
      );
      moments.set(JSON.stringify([tells, each && clock.today]), one);
    }
  }
  return [...moments.values()].flatMap((one) => [
    { moment: one },
    ...[true, false].map((sv1) => ({ moment: one, session: { sv1 } })),
  ]);
}

const CLOCKS = ['now', 'today', 'time', 'weekday', 'day'] as const;

/** Is the one before the other, the same, or after it? */
const order = (clock: string, a: string, b: string): number =>
  clock === 'day' ? Math.sign(Number(a) - Number(b)) : a < b ? -1 : a > b ? 1 : 0;

/** What is told, in the same words. */
const compared = (before: Definition, after: Definition, viewers: readonly Viewer[], at: Circumstances) => {
  const everybody = viewers.map((viewer, key) => ({ key, viewer }));
  return compareReach(before, after, everybody, at).flatMap(({ element, groups }) =>
    groups.flatMap((group) =>
      group.who.map((n) => {
        const shift = JSON.stringify([group.before, group.after]);
        return `${element} ${n} ${shift} ${group.elsewhen ? 'elsewhen' : 'now'}`;
      }),
    ),
  );
};

/** Roles that are held for good: which of them begin at a time that only another condition names is not what is compared. */
const forGood = (viewer: Viewer): Viewer =>
  viewer.kind === 'signed-out'
    ? viewer
    : {
        ...viewer,
        assignments: viewer.assignments.map(({ role, unit }) => ({ role, ...(unit && { unit }) })),
      };

/** Another definition: with other lines on some gates, with other roles, or another one altogether. */
function another(draw: Draw, before: Definition): Definition {
  const kind = draw.upTo(9);
  if (kind < 2) return drawDefinition(draw);
  const ids = treeOf(before).elements.map(({ id }) => id);
  const gates = { ...before.gates };
  for (const id of draw.many(3, () => draw.one(ids), 1)) {
    const entity = treeOf(before).recordOf(treeOf(before).get(id) as AppElement);
    const lines = gates[id]?.lines ?? [];
    gates[id] = {
      lines: draw.chance(30) ? draw.some(lines, 50) : [...draw.some(lines, 90), drawLine(draw, entity)],
    };
    if (draw.chance(15) && id !== before.id) Reflect.deleteProperty(gates, id);
  }
  const roles =
    kind === 2 ? before.roles.map((one) => ({ ...one, privileges: draw.some(['q1', 'q2']) })) : before.roles;
  const sections =
    kind === 3
      ? before.conditions.map((one) => ({ ...one, condition: { not: one.condition } }))
      : before.conditions;
  return { ...before, roles, conditions: sections, gates };
}

/** `MOST` of other-times.ts. */
const MOST_TIMES = 150;

describe('whose access differs', () => {
  it('is told as if every viewer and every element were asked by themselves, at every time', () => {
    let [differ, whole] = [0, 0];
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const before = drawDefinition(draw);
        const after = another(draw, before);
        const viewers = draw.many(draw.chance(10) ? 40 : 6, () => forGood(drawViewer(draw)), 2);
        const at = drawCircumstances(draw);
        const plain = plainly(before, after, viewers, at);
        const told = compared(before, after, viewers, at);
        // Of what is so at some time, it does not matter at which of them.
        const some = new Set(plain.flatMap((one) => (/ then$/.test(one) ? [one.replace(/ then$/, '')] : [])));
        const inShort = told.map((one) => {
          const place = one.split(' ').slice(0, 2).join(' ');
          return some.has(place) ? `${place} then` : one;
        });
        expect(inShort.filter((one) => !plain.includes(one))).toEqual([]);
        const missed = plain.filter((one) => !inShort.includes(one));
        // Only so many other times are looked at: where there are more, one at which something differs may be missed.
        const allTimes = everyTime([before, after], at).length <= MOST_TIMES;
        expect(missed.filter((one) => allTimes || !/ (then|elsewhen)$/.test(one))).toEqual([]);
        whole += allTimes ? 1 : 0;
        differ += plain.length > 0 ? 1 : 0;
      }),
      { numRuns: runs(300), endOnFailure: true },
    );
    expect(differ).toBeGreaterThan(found(100));
    expect(whole).toBeGreaterThan(found(20));
  });
});
