import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { faultInJson } from '@/cli/json';
import { LARKFIELD } from '@/demo/definition';
import { runs } from '../runs';

const folder = mkdtempSync(join(tmpdir(), 'zinc-pipe-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const put = (name: string, content: string | Buffer): string => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const run = (args: readonly string[], input?: string) => {
  const { status, stdout, stderr } = spawnSync('bin/zinc', [...args], {
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: '' },
    ...(input !== undefined && { input }),
  });
  return { status, out: stdout, error: stderr };
};

const TEXT = JSON.stringify(LARKFIELD, null, 2);
const app = put('app.json', TEXT);
const deep = (open: string, close: string, times: number): string => open.repeat(times) + close.repeat(times);
const withCondition = (condition: string): string =>
  TEXT.replace('"conditions": [', `"conditions": [{"id":"odd","name":"Odd","condition":${condition}},`);

describe('JSON that is read', () => {
  it('is faulted exactly where it is none, or has a key twice', () => {
    fc.assert(
      fc.property(fc.json(), fc.nat(), fc.string({ maxLength: 2 }), (text, n, odd) => {
        expect(faultInJson(text)).toBeUndefined();
        expect(faultInJson(JSON.stringify(JSON.parse(text), null, 2))).toBeUndefined();
        const at = n % (text.length + 1);
        const broken = text.slice(0, at) + odd + text.slice(at + 1);
        let read = true;
        try {
          JSON.parse(broken);
        } catch {
          read = false;
        }
        const fault = faultInJson(broken);
        if (!read) expect(fault).toBeDefined();
        else if (fault) expect(fault.message).toMatch(/there twice/);
      }),
      { numRuns: runs(3000) },
    );
    expect(faultInJson('{"a": 1,\n "b": {"c": 1, "c": 2}}')).toMatchObject({ line: 2, column: 16 });
    expect(faultInJson(deep('[', ']', 200_000))).toBeUndefined();
    expect(faultInJson('{"a": [1, 2')).toMatchObject({ message: expect.stringContaining('ends before') });
  });
});

describe('bin/zinc in a pipeline', () => {
  const cases = put('cases.csv', 'viewer,element\nsigned-out,s_items\n');
  const decide = (world: string, of = cases) => ['decide', app, '--world', world, '--cases', of];
  const world = (json: unknown): string =>
    put(`world-${Math.random()}.json`, typeof json === 'string' ? json : JSON.stringify(json));

  it.each<[string, () => readonly string[], RegExp]>([
    [
      'deep conditions',
      () => ['check', put('a.json', withCondition(deep('{"not":', '}', 1000).replace('}', '{"all":[]}}')))],
      /nested more than 100 levels deep/,
    ],
    [
      'deep units',
      () => [
        'check',
        put(
          'b.json',
          TEXT.replace(
            '"units": [',
            `"units": [${'{"id":"u","name":"U","units":['.repeat(1000)}${']}'.repeat(1000)},`,
          ),
        ),
      ],
      /nested more than 100 levels deep/,
    ],
    [
      'a deep menu',
      () => [
        'check',
        put(
          'c.json',
          TEXT.replace(
            '"items": [',
            `"items": [${'{"id":"m","name":"M","items":['.repeat(1000)}${']}'.repeat(1000)},`,
          ),
        ),
      ],
      /nested more than 100 levels deep/,
    ],
    [
      '__proto__ as a key',
      () => ['check', put('d.json', TEXT.replace('"gates": {', '"gates": {"__proto__": {"lines": []},'))],
      /__proto__/,
    ],
    [
      'constructor as a key',
      () => ['check', put('e.json', TEXT.replace('"gates": {', '"gates": {"constructor": {"lines": []},'))],
      /constructor/,
    ],
    [
      'a null character',
      () => ['check', put('f.json', TEXT.replace('"Larkfield Loans Desk"', '"Lark\\u0000field"'))],
      /null character/,
    ],
    [
      'half a surrogate pair',
      () => ['check', put('g.json', TEXT.replace('"Larkfield Loans Desk"', '"Lark\\ud800"'))],
      /surrogate pair/,
    ],
    ['invalid UTF-8', () => ['check', put('h.json', Buffer.from([0x7b, 0xff, 0x7d]))], /not UTF-8/],
    [
      'a doubled key',
      () => ['check', put('i.json', TEXT.replace('"format": 3,', '"format": 3,\n"format": 3,'))],
      /line 3, column 1: The key "format" appears twice/,
    ],
    [
      'a file that was cut off',
      () => ['check', put('j.json', TEXT.slice(0, 20_000))],
      /line \d+, column \d+: .*(ends before|cannot be read|missing)/,
    ],
    ['a file that is not there', () => ['check', join(folder, 'none.json')], /does not exist/],
    ['a folder', () => ['check', folder], /is a folder/],
    [
      'an unknown column',
      () => decide(world({}), put('k.csv', 'viewer,element,wen\nsigned-out,s_items,x\n')),
      /line 1: There is no column wen/,
    ],
    [
      'a doubled column',
      () => decide(world({}), put('l.csv', 'viewer,element,viewer\nsigned-out,s_items,x\n')),
      /viewer appears twice/,
    ],
    ['no cases', () => decide(world({}), put('m.csv', 'viewer,element\n')), /no cases/],
    [
      'a day that there is not',
      () => ['reach', app, '--at', '2026-02-30T00:00:00Z'],
      /is not a valid date and time/,
    ],
    [
      'doubled people',
      () => decide(world({ people: [{ id: 'a' }, { id: 'a' }] })),
      /people\[1\]: a appears twice/,
    ],
    [
      'doubled records',
      () => decide(world({ records: [1, 2].map(() => ({ entity: 'item', id: 'x', values: {} })) })),
      /records\[1\]: item:x appears twice/,
    ],
    [
      'doubled units',
      () => decide(world({ units: [1, 2].map(() => ({ id: 'u', name: 'U', units: [] })) })),
      /units\[1\]: u appears twice/,
    ],
    [
      'values that are none',
      () => decide(world({ records: [{ entity: 'item', id: 'x', values: { item_title: ['x'] } }] })),
      /must be text, a number/,
    ],
    ['an unknown option', () => ['check', app, '--nonsense'], /unknown option/],
  ])('tells %s in its place, with a mend and without a stack, and exits with 2', (_, args, says) => {
    const { status, out, error } = run(args());
    expect(error).toMatch(says);
    expect([status, out]).toEqual([2, '']);
    expect(error).not.toMatch(/^ +at |node:internal|RangeError/m);
  });

  it('notes values that are not of their type, and answers', () => {
    const { status, error } = run(
      decide(world({ records: [{ entity: 'item', id: 'x', values: { item_value: 'a lot' } }] })),
    );
    expect(error).toMatch(/Note: .*records\[0\].values.item_value: .*treat it as missing/);
    expect(status).toBe(0);
  });

  it('says nothing more once its reader has gone', () => {
    const done = spawnSync('bash', ['-c', `bin/zinc reach ${app} | head -1; echo "\${PIPESTATUS[0]}"`], {
      encoding: 'utf8',
    });
    expect(done.stderr).toBe('');
    expect(done.stdout).toMatch(/^element,kind,name,.*\r?\n(0|2)\n$/);
  });

  it('tells that a folder to write to is missing', () => {
    const { status, error } = run(['export', 'larkfield', '--out', join(folder, 'none', 'x.json')]);
    expect(error).not.toMatch(/^ +at /m);
    expect(status).toBe(2);
  });
});
