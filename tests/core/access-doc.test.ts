import { accessOf } from '@/core/access/deciding/access';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import type { KnownRecord } from '@/core/access/sent/resolve';
import { SIGNED_OUT, viewerOfRole, type Viewer } from '@/core/access/deciding/viewer';
import { parse } from '@/core/condition/parse';
import { answerInWords } from '@/core/edit/comparing/words';
import type { Definition } from '@/core/model/definition';
import type { Line, What, Who } from '@/core/model/gate';
import { readDefinition } from '@/core/model/schema';
import type { Value } from '@/core/model/value-type';
import { LARKFIELD } from '@/demo/definition';

/**
 * The examples in docs/access.md: `gate ID: WHO [exactly] WHAT [when CONDITION], …` changes the demo, `record` and
 * `person` make some; other lines are expected answers: `VIEWER ELEMENT [on RECORD] [at MOMENT] ANSWER`.
 */
const page = readFileSync(new URL('../../docs/access.md', import.meta.url), 'utf8');
const example = /```access\n([\s\S]*?)```/.exec(page)?.[1] ?? '';

const roleId = (name: string): string => {
  const role = LARKFIELD.roles.find((one) => one.name === name);
  if (!role) throw new Error(`The demo has no role ${name}`);
  return role.id;
};

/** `record KEY ENTITY FIELD=VALUE …` and `person KEY ROLE[@UNIT] [until=MOMENT] [ATTRIBUTE=VALUE …]` */
const records = new Map<string, KnownRecord>();
const people = new Map<string, Viewer>();

const pairs = (words: readonly string[]): Record<string, Value> =>
  Object.fromEntries(
    words.map((word) => {
      const [key = '', value = ''] = word.split('=');
      return [key, value === 'true' ? true : value];
    }),
  );

function put([kind, key = '', of = '', ...rest]: readonly string[]): void {
  if (kind === 'record') {
    const entity = LARKFIELD.entities.find((one) => one.id === of);
    if (!entity) throw new Error(`The demo has no entity ${of}`);
    records.set(key, { id: key, entity, values: pairs(rest) });
    return;
  }
  const [role = '', unit] = of.split('@');
  const { until, ...attributes } = pairs(rest);
  people.set(key, {
    kind: 'signed-in',
    person: key,
    attributes,
    assignments: [{ role, ...(unit !== undefined && { unit }), ...(typeof until === 'string' && { until }) }],
  });
}

const viewerOf = (name: string): Viewer =>
  people.get(name) ?? (name === 'signed out' ? SIGNED_OUT : viewerOfRole(roleId(name)));

function lineOf(words: string, n: number, gate: string): Line {
  const [, name = '', exactly, what, when] =
    /^(.+?)( exactly)? (see|edit|block|at-most-see)(?: when (.+))?$/.exec(words.trim()) ?? [];
  const who: Who =
    name === 'signed in' || name === 'everyone'
      ? { kind: name === 'everyone' ? 'everyone' : 'signed-in' }
      : { kind: 'role', role: roleId(name), ...(exactly && { exactly: true }) };
  const { tree } = compile(LARKFIELD);
  const element = tree.get(gate);
  const parsed =
    when === undefined
      ? undefined
      : parse({ definition: LARKFIELD, entity: element && tree.recordOf(element) }, when);
  if (parsed && !parsed.ok) throw new Error(parsed.problem.message);
  return { id: `doc${n}`, who, what: what as What, ...(parsed?.ok && { when: parsed.value }) };
}

describe('docs/access.md', () => {
  let definition: Definition = LARKFIELD;
  const steps = example
    .split('\n')
    .map((line) => line.replace(/(^|\s)#.*/, '').trim())
    .filter(Boolean);

  it('has examples', () => expect(steps.length).toBeGreaterThan(35));

  it.each(steps)('%s', (step) => {
    if (/^(record|person) /.test(step)) return put(step.split(/\s+/));
    const gate = /^gate (\S+):(.*)$/.exec(step);
    if (gate) {
      const [, id = '', written = ''] = gate;
      const lines = written
        .split(',')
        .filter((words) => words.trim())
        .map((words, n) => lineOf(words, n, id));
      const read = readDefinition({ ...LARKFIELD, gates: { ...LARKFIELD.gates, [id]: { lines } } });
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      definition = read.value;
      return;
    }
    const [, viewer = '', id = '', on, at, word] =
      /^(\S+(?: \S+)*?)\s{1,}(\S+?)(?:\s+on (\S+))?(?:\s+at (\S+))?\s+(\S+)$/.exec(step) ?? [];
    const access = accessOf(compile(definition), viewerOf(viewer.trim()), {
      moment: at === undefined ? Date.parse('2026-03-04T12:00:00Z') : Date.parse(at),
    });
    const element = access.element(id);
    const record = on === undefined ? undefined : records.get(on);
    const level = record && access.level(element, record);
    const answer = level === undefined ? access.answer(element) : { least: level, most: level };
    expect(answerInWords(element.kind, answer).toLowerCase()).toBe(word);
  });
});
