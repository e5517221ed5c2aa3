import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { database } from '@/server/database/client';
import { edits } from '@/server/database/schema';
import { LARKFIELD } from '@/demo/definition';
import { dropApplications, emptyDatabase, application, underNewId } from '../server/setting';

const folder = mkdtempSync(join(tmpdir(), 'zinc-cli-'));
const file = (name: string): string => join(folder, name);
const put = (name: string, content: unknown): string => {
  writeFileSync(file(name), typeof content === 'string' ? content : JSON.stringify(content));
  return file(name);
};
const zinc = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync('bin/zinc', args, { encoding: 'utf8', env: process.env });
  return { status, out: stdout, error: stderr };
};

const WORLD = {
  people: [
    { id: 'ada', email: 'ada@x.example', assignments: [{ role: 'lender' }] },
    { id: 'bo', active: false },
  ],
  assignments: [
    { person: 'bo', role: 'head' },
    { person: 'ada', role: 'assistant', unit: 'mill-annexe', until: '2026-06-01T00:00:00Z' },
  ],
  viewers: [{ id: 'clerk', viewer: { assignments: [], groups: ['g_trained'], session: { sv_stock: true } } }],
  records: [
    { entity: 'item', id: 'own', values: { item_lender_email: 'ada@x.example', item_branch: 'main-hall' } },
    {
      entity: 'item',
      id: 'other',
      values: { item_lender_email: 'x@x.example', item_branch: 'mill-annexe', item_value: 12 },
    },
  ],
};

let definition = '';
let world = '';

beforeAll(() => {
  definition = put('app.json', LARKFIELD);
  world = put('world.json', WORLD);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('bin/zinc test', () => {
  it('checks what is expected, any time where none is named, and reports as JUnit does', () => {
    const cases = put(
      'expected.csv',
      [
        'viewer,element,record,at,expect,name,reason',
        'role:lender,s_loans,,,none,"Lenders & loans",promised',
        'person:ada,item_store,item:own,2026-03-14T12:00:00Z,none,,',
        'role:assistant,b_courier,,,none..edit,,',
        'role:head,s_loans,,,see,"""Heads""",',
        'role:gone,s_loans,,,see,,',
      ].join('\n'),
    );
    const report = file('report.xml');
    const run = zinc('test', definition, '--world', world, '--cases', cases, '--junit', report);
    expect(run.out).toContain('"Heads": role:head s_loans (line 5): Expected see, but found edit.');
    const written = readFileSync(report, 'utf8');
    expect(written).toContain('tests="5" failures="1" errors="1"');
    expect(written).toContain('classname="Lenders &amp; loans"');
    // One could not be asked.
    expect(run.status).toBe(2);
    const four = put('four.csv', readFileSync(cases, 'utf8').split('\n').slice(0, 5).join('\n'));
    expect(zinc('test', definition, '--world', world, '--cases', four).status).toBe(1);
    const two = put('two.csv', readFileSync(cases, 'utf8').split('\n').slice(0, 3).join('\n'));
    expect(zinc('test', definition, '--world', world, '--cases', two)).toMatchObject({
      status: 0,
      out: '2 of 2 expectations met.\n',
    });
  });

  it('knows viewers who are put together: kept ones of the world, and those in the key itself', () => {
    const made = (role: string) =>
      `"made:${JSON.stringify({ assignments: [{ role }] }).replaceAll('"', '""')}"`;
    const cases = put(
      'made.csv',
      [
        'viewer,element,expect',
        `${made('lender')},s_loans,none`,
        `${made('head')},s_loans,edit`,
        'kept:clerk,s_item,none',
        'kept:nobody,s_item,none',
        '"made:{",s_item,none',
      ].join('\n'),
    );
    const run = zinc('test', definition, '--world', world, '--cases', cases);
    expect(run.out).toContain('3 of 5 expectations met.');
    expect(run.out).toContain('There is no viewer “kept:nobody”.');
    expect(run.out).toContain('There is no viewer “made:{”.');
    expect(run.status).toBe(2);
    const odd = put('odd.json', { viewers: [{ id: 'clerk', viewer: { assignments: 'head' } }] });
    const refused = zinc('test', definition, '--world', odd, '--cases', cases);
    expect([refused.status, refused.error]).toEqual([
      2,
      expect.stringContaining('viewers[0].viewer.assignments'),
    ]);
  });
});

describe('bin/zinc decide', () => {
  it('answers cases by person, role, record and moment, and says what decided', () => {
    const cases = put(
      'cases.csv',
      [
        'viewer,element,record,at,expect',
        'person:ada,item,item:own,2026-07-01T12:00:00Z,edit',
        'person:ada,item,item:other,2026-07-01T12:00:00Z,none',
        'person:ada,p_item_store,item:other,2026-05-01T12:00:00Z,see',
        'person:ada,p_item_store,item:own,2026-05-01T12:00:00Z,none',
        'person:bo,s_items,,,none',
        'role:assistant,b_courier,,2026-07-04T12:00:00Z,none',
        'role:assistant,b_courier,,2026-07-06T12:00:00Z,edit',
        'signed-out,item,,,none..edit',
      ].join('\n'),
    );
    const { status, out } = zinc('decide', definition, '--world', world, '--cases', cases, '--json');
    const answers = JSON.parse(out) as { as_expected: string; decided_by: string }[];
    expect(answers.map((one) => one.as_expected)).toEqual(answers.map(() => 'yes'));
    expect(answers.every((one) => one.decided_by !== '')).toBe(true);
    expect(status).toBe(0);
  });

  it('exits with 1 where an answer is not as expected, and still answers', () => {
    const cases = put('differs.csv', 'viewer,element,expect\nsigned-out,s_items,edit\n');
    const { status, out } = zinc('decide', definition, '--cases', cases);
    expect([status, out.split('\n')[1]]).toEqual([
      1,
      'signed-out,s_items,,,edit,no,none,none,no line on s_items',
    ]);
  });

  it('tells every unknown id with its line, answers all other cases, and exits with 2', () => {
    const cases = put(
      'bad.csv',
      'viewer,element,record,at\nperson:cy,s_items,,\nsigned-out,nothing,,\nsigned-out,item,item:k9,\nsigned-out,item,,soon\nsigned-out,s_items,,\n',
    );
    const { status, out, error } = zinc('decide', definition, '--world', world, '--cases', cases);
    expect(status).toBe(2);
    expect(
      out
        .trim()
        .split('\n')
        .map((row) => row.split(',').slice(4, 6).join()),
    ).toEqual(['least,most', ...[',', ',', ',', ','], 'none,none']);
    for (const [line, what] of [
      [2, 'person:cy'],
      [3, 'nothing'],
      [4, 'item:k9'],
      [5, 'soon'],
    ])
      expect(error).toMatch(new RegExp(`line ${line}: .*“${what}”`));
  });

  it('tells what is wrong in a world, place by place', () => {
    const wrong = put('wrong.json', {
      records: [{ entity: 'item', id: 'k', values: { item_price: '1' } }],
      assignments: [{ person: 'nobody', role: 'head' }],
    });
    const cases = put('one.csv', 'viewer,element\nsigned-out,s_items\n');
    const { status, error } = zinc('decide', definition, '--world', wrong, '--cases', cases);
    expect(status).toBe(2);
    expect(error).toMatch(/assignments\[0\]\.person: There is no person nobody/);
    expect(error).toMatch(/records\[0\]\.values: Item has no field item_price/);
  });
});

describe('bin/zinc', () => {
  it('checks a definition, explains an answer and prints the matrix', () => {
    expect(zinc('check', definition)).toMatchObject({ status: 0, out: 'The definition is valid.\n' });
    const bad = put('bad.json', { ...LARKFIELD, startScreen: 'nowhere', gates: {} });
    const { status, error } = zinc('check', bad);
    expect(status).toBe(2);
    expect(error).toMatch(/no screen nowhere/);
    expect(error).toMatch(/must have its own lines/);
    const odd = put('odd.json', { ...LARKFIELD, currency: 'QQQ', language: 'xx' });
    expect(zinc('check', odd).error).toMatch(
      /currency: QQQ is not a currency\.[^]*language: xx is not a known/,
    );
    const why = zinc('explain', definition, '--viewer', 'role:volunteer', '--element', 's_loans');
    expect(why.out).toMatch(/^role:volunteer has none of s_loans: no line on s_loans\n/);
    const [header, ...rows] = zinc('reach', definition).out.trim().split('\n');
    expect(header).toMatch(/^element,kind,name,signed-out,signed-in,role:volunteer,/);
    expect(rows.find((row) => row.startsWith('item,'))).toMatch(
      /^item,rows,Items,none\.\.edit,none\.\.edit,edit/,
    );
    expect(zinc('--help')).toMatchObject({ status: 0 });
    expect(zinc('nonsense').status).toBe(2);
  });

  it('tells what is probably wrong, in text, JSON and SARIF, and by its exit code', () => {
    // Without those of the demo that let somebody in.
    const { l_loans_loan_fee: _, p_item_store: __, ...gates } = LARKFIELD.gates;
    const roles = LARKFIELD.roles.map(({ handsOut: ___, ...one }) => one);
    const quiet = { ...LARKFIELD, signUp: false, gates, roles };
    const hidden = put(
      'hidden.json',
      JSON.stringify(
        {
          ...quiet,
          gates: {
            ...gates,
            m_items: { lines: [{ id: 'x1', who: { kind: 'role', role: 'head' }, what: 'edit' }] },
          },
        },
        null,
        2,
      ),
    );
    const text = zinc('check', hidden, '--findings');
    expect(text.status).toBe(4);
    expect(text.out).toMatch(
      /^Access risk: The menu item Items is hidden from .*\[hidden-but-open\]\n {2}at .*\(s_items\), Items \(in the menu\) \(m_items\)\n {2}- Close the screen/m,
    );
    const one = JSON.parse(zinc('check', hidden, '--findings', '--at-least', 'lets-in', '--json').out) as {
      kind: string;
    }[];
    expect(one.map(({ kind }) => kind)).toEqual(['hidden-but-open']);
    const told = zinc('check', hidden, '--findings', '--effects', '--json').out;
    const [{ mends: [mend] = [] } = {}] = JSON.parse(told) as { mends?: Record<string, unknown>[] }[];
    expect(mend).toMatchObject({ says: expect.stringMatching(/^Close the screen/) as string, gain: [] });
    expect(mend?.['lose']).toContain('role:curator');
    const sarif = JSON.parse(zinc('check', hidden, '--format', 'sarif').out) as {
      version: string;
      runs: {
        results: { level: string; locations: { physicalLocation: { region: { startLine: number } } }[] }[];
      }[];
    };
    expect(sarif.version).toBe('2.1.0');
    const [first] = sarif.runs[0]?.results ?? [];
    const at = first?.locations[0]?.physicalLocation.region.startLine ?? 0;
    expect(first?.level).toBe('error');
    expect(readFileSync(hidden, 'utf8').split('\n')[at - 1]).toContain('"id": "s_items"');
    const bare = put('bare.json', quiet);
    expect(zinc('check', bare, '--findings').status).toBe(3);
    expect(zinc('check', bare, '--findings', '--at-least', 'lets-in')).toMatchObject({
      status: 0,
      out: 'No findings.\n',
    });
    expect(zinc('check', bare, '--findings', '--format', 'xml').status).toBe(2);
  });

  it('says of a kind how many of its people get it, where that is asked for', () => {
    const when = { compare: '=', left: { user: 'email' }, right: { value: 'ada@x.example' } };
    const line = { id: 'mine', who: { kind: 'role', role: 'lender' }, what: 'edit', when };
    const gates = { ...LARKFIELD.gates, s_stores: { lines: [line] } };
    const app = put('kinds.json', { ...LARKFIELD, gates });
    const lenders = ['ada', 'bo', 'cy'].map((id) => ({ id, email: `${id}@x.example` }));
    const people = lenders.map((one) => ({ ...one, assignments: [{ role: 'lender' }] }));
    const given = put('lenders.json', { people });
    const cells = (...more: string[]): readonly string[] => {
      const [header = '', ...rows] = zinc('reach', app, '--world', given, ...more).out.split('\n');
      const row = rows.find((one) => one.startsWith('s_stores,'));
      return [row?.split(',')[header.split(',').indexOf('role:lender')] ?? ''];
    };
    expect(cells()).toEqual(['none..edit']);
    expect(cells('--numbers')).toEqual(['none..edit (edit for 1 of 3)']);
    const json = JSON.parse(zinc('reach', app, '--world', given, '--numbers', '--json').out) as {
      viewers: string[];
      rows: { element: string; people: unknown[] }[];
    };
    const stores = json.rows.find(({ element }) => element === 's_stores');
    expect(stores?.people[json.viewers.indexOf('role:lender')]).toEqual({ edit: 1, see: 0, of: 3 });
  });

  it('exports a draft, and imports it as one edit; a bad file changes nothing', async () => {
    await emptyDatabase();
    const own = underNewId(LARKFIELD);
    await application(own);
    const exported = zinc('export', own.id);
    expect(exported.status).toBe(0);
    expect(JSON.parse(exported.out)).toEqual(JSON.parse(JSON.stringify(own)));
    const same = put('same.json', exported.out);
    expect(zinc('import', own.id, same)).toMatchObject({
      status: 0,
      out: 'No differences. Nothing was imported.\n',
    });
    const changed = put('changed.json', { ...own, name: 'Another name' });
    const imported = zinc('import', own.id, changed);
    expect(imported).toMatchObject({
      status: 0,
      out: 'Imported as revision 1. It has not been released yet.\n',
    });
    expect(JSON.parse(zinc('export', own.id).out)).toMatchObject({ name: 'Another name' });
    expect(JSON.parse(zinc('export', own.id, '--released').out)).toMatchObject({ name: own.name });
    const bad = put('broken.json', { ...own, name: '' });
    expect(zinc('import', own.id, bad).status).toBe(2);
    expect(await database().$count(edits)).toBe(1);
    await dropApplications();
  });
});

describe('bin/zinc with applications', () => {
  beforeAll(async () => {
    await emptyDatabase();
    await application(underNewId(LARKFIELD));
  });

  it('makes them from CSV files and definitions, lists, copies and deletes them', () => {
    const made = zinc(
      'new',
      'Fernhill Allotments',
      '--csv',
      'demo/plots.csv,demo/inspections.csv',
      '--currency',
      'GBP',
    );
    expect(made).toEqual({
      status: 0,
      out: 'Application created at /live/fernhill-allotments. It has not been released yet.\n',
      error: '',
    });
    const records = zinc('records', 'export', 'fernhill-allotments', 'Inspections').out.split('\n');
    expect(records).toHaveLength(3002);
    expect(records[0]).toMatch(/^id,Inspection,Plot,Inspected on,/);
    const exported = zinc('export', 'fernhill-allotments', '--out', file('fernhill.json'));
    expect(exported.status).toBe(0);
    expect(zinc('new', 'Again', '--from', file('fernhill.json')).status).toBe(0);
    expect(zinc('copy', 'again', 'Third', '--address', 'third').out).toBe(
      'Application copied to /live/third.\n',
    );
    expect(zinc('delete', 'again', '--name', 'Third')).toMatchObject({
      status: 2,
      error: expect.stringMatching(/the name does not match/),
    });
    expect(zinc('delete', 'again', '--name', 'Again').status).toBe(0);
    const all = JSON.parse(zinc('list', '--json').out) as { address: string; name: string }[];
    expect(all.map(({ name }) => name).sort()).toEqual(
      ['Fernhill Allotments', LARKFIELD.name, 'Third'].sort(),
    );
    // A file imported as it was exported changes nothing; what does not fit is told, and nothing is done.
    const taken = put('inspections.csv', zinc('records', 'export', 'fernhill-allotments', 'Inspections').out);
    expect(zinc('records', 'import', 'fernhill-allotments', 'Inspections', taken).out).toBe(
      '0 added, 0 changed.\n',
    );
    const odd = put('odd.csv', 'Inspection,Inspected on\nN1,soon\n');
    expect(zinc('records', 'import', 'fernhill-allotments', 'Inspections', odd, '--dry').out).toMatch(
      /^Line 2, Inspected on: “soon” is not a valid value for Inspected on\.\n/,
    );
    expect(zinc('records', 'import', 'fernhill-allotments', 'Inspections', odd)).toMatchObject({ status: 2 });
    expect(zinc('builders', 'third').out).toMatch(/^(ada|bo)-.*@test\.example\t(ada|bo)\towner\n$/);
  });

  it('says what is wrong, and makes nothing', () => {
    const broken = put('broken.csv', 'a,b\n"1,2\n');
    for (const [args, says] of [
      [['new', 'X', '--csv', broken], /broken\.csv: a quote opened in line 2/],
      [['new', 'X', '--csv', 'nowhere.csv'], /nowhere\.csv: The file cannot be read/],
      [['new', 'X', '--address', 'third'], /already uses the address third/],
      [['new', 'X', '--as', 'nobody@x.example'], /no builder nobody@x\.example/],
      [['records', 'export', 'third', 'Nothing'], /The entities are Plots, Inspections/],
      [['copy', 'nowhere', 'X'], /no application nowhere/],
      [['new', 'X', '--csv', broken, '--from', 'x.json'], /cannot be used with option '--csv/],
    ] as const)
      expect(zinc(...args), args.join(' ')).toMatchObject({ status: 2, error: expect.stringMatching(says) });
    expect(zinc('list').out.trim().split('\n')).toHaveLength(3);
  });
});
