import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/compile';
import { rightNow, SIGNED_OUT, viewerOfRole, type Viewer } from '@/core/access/viewer';
import { answerInWords } from '@/core/edit/words';
import type { Definition } from '@/core/model/definition';
import type { Line, What, Who } from '@/core/model/gate';
import { readDefinition } from '@/core/model/schema';
import { LARKFIELD } from '@/demo/definition';

/** The examples in docs/access.md: `gate ID: WHO [exactly] WHAT, …` changes the demo, other lines are expected answers. */
const page = readFileSync(new URL('../../docs/access.md', import.meta.url), 'utf8');
const example = /```access\n([\s\S]*?)```/.exec(page)?.[1] ?? '';

const roleId = (name: string): string => {
  const role = LARKFIELD.roles.find((one) => one.name === name);
  if (!role) throw new Error(`The demo has no role ${name}`);
  return role.id;
};

const viewerOf = (name: string): Viewer => (name === 'signed out' ? SIGNED_OUT : viewerOfRole(roleId(name)));

function lineOf(words: string, n: number): Line {
  const [, name = '', exactly, what] = /^(.+?)( exactly)? (\S+)$/.exec(words.trim()) ?? [];
  const who: Who =
    name === 'signed in'
      ? { kind: 'signed-in' }
      : { kind: 'role', role: roleId(name), ...(exactly && { exactly: true }) };
  return { id: `doc${n}`, who, what: what as What };
}

describe('docs/access.md', () => {
  let definition: Definition = LARKFIELD;
  const steps = example
    .split('\n')
    .map((line) => line.replace(/#.*/, '').trim())
    .filter(Boolean);

  it('has examples', () => expect(steps.length).toBeGreaterThan(20));

  it.each(steps)('%s', (step) => {
    const gate = /^gate (\S+):(.*)$/.exec(step);
    if (gate) {
      const lines = (gate[2] ?? '')
        .split(',')
        .filter((words) => words.trim())
        .map(lineOf);
      const read = readDefinition({
        ...LARKFIELD,
        gates: { ...LARKFIELD.gates, [gate[1] ?? '']: { lines } },
      });
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      definition = read.value;
      return;
    }
    const [, viewer = '', id = '', word] = /^(.+?)\s+(\S+)\s+(\S+)$/.exec(step) ?? [];
    const access = compile(definition).access(viewerOf(viewer), rightNow());
    const element = access.element(id);
    expect(answerInWords(element.kind, access.answer(element)).toLowerCase()).toBe(word);
  });
});
