import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { freePort } from '../../bin/lib/cluster.mjs';
import { DATA, endProcess, pause, ROOT, runLong, spawn } from '../../bin/lib/run.mjs';
import { setUpDatabase } from '../../bin/lib/server.mjs';
import { signIn } from './crash.mjs';

const FOLDER = `${DATA}/leaking`;
const NEEDED = ['bin', 'src', 'package.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'];

/** @typedef {{ viewer: string, what: string, said: string, request: string, element?: string }} Surprise */

const API = 'src/server/records/api.ts';
/** So long a slow machine may take to find them; it ends with the last one found. */
const MOST_SECONDS = 600;
const IF_OPEN = 'if (access.level(access.element(field.id), record) === NONE) continue;';

/**
 * What is broken on purpose: in which file, what becomes what, and how a sweep should tell of it.
 * @type {readonly { name: string, file: string, changes: readonly (readonly [string, string])[], tells: (one: Surprise) => boolean }[]}
 */
const LEAKS = [
  {
    name: 'a route that forgets a door',
    file: API,
    changes: [
      ['await openRecord(this.scope, entity, id);', 'await storedRecord(this.scope, entity, id);'],
      ['  openRecord,\n', '  storedRecord,\n'],
    ],
    tells: ({ what, request }) => what === 'answers' && /^GET \/api\/records\/\w+\/Zr/.test(request),
  },
  {
    name: 'an answer that carries one field more',
    file: API,
    changes: [[IF_OPEN, IF_OPEN.replace('if (', "if (!field.name.startsWith('Store') && ")]],
    tells: ({ what, said }) => what === 'shows' && said.startsWith('Store and shelf of'),
  },
  {
    name: 'a page that carries whole records',
    file: 'src/server/live/screen-page.ts',
    changes: [
      [
        '...resolveRow(scope.access, list, record, screenRecord),',
        '...resolveRow(scope.access, list, record, screenRecord), raw: record.values,',
      ],
    ],
    tells: ({ what, request }) => what === 'shows' && !request.includes('/api/'),
  },
  {
    name: 'a header that tells names',
    file: API,
    changes: [
      [
        'headers: { ...headers, ETag',
        "headers: { ...headers, 'X-Fields': entity.fields.map(({ name }) => name).join(' '), ETag",
      ],
    ],
    tells: ({ what, said }) => what === 'shows' && said.startsWith('The name or id of'),
  },
  {
    name: 'a page that tells ids of what it does not show',
    file: 'src/server/live/screen-page.ts',
    changes: [
      [
        '      screen: shown,\n',
        '      screen: Object.assign({ all: tree.elements.map((one) => one.id) }, shown),\n',
      ],
    ],
    tells: ({ what, said, request }) =>
      what === 'shows' && said.startsWith('The name or id of') && !request.includes('/api/'),
  },
  {
    name: 'an answer that tells what is hidden from what is not there',
    file: 'src/server/records/write.ts',
    changes: [
      [
        'if (!stored) throw notThere();\n  return',
        "if (!stored && (await storedRecord(scope, entity, id))) throw new Refused(404, 'hidden', 'You may not see it.');\n  if (!stored) throw notThere();\n  return",
      ],
      ['knownRecord, openRecord, ', 'knownRecord, openRecord, storedRecord, '],
    ],
    tells: ({ said }) => said.startsWith('The response for a hidden item'),
  },
  {
    name: 'a count that tells of hidden records',
    file: 'src/server/records/read.ts',
    changes: [['return { records: found, total,', 'return { records: found, total: total + 1,']],
    tells: ({ what }) => what === 'counts',
  },
  {
    name: 'a change that is let through',
    file: 'src/server/records/write.ts',
    changes: [
      [
        'requireWritable(entity, input, (field) => (inChain.has(field.id) ? EDIT : levelOf(field)));\n  requireOpen(scope, update, stored);',
        'requireWritable(entity, input, () => EDIT);\n  void [inChain, levelOf];',
      ],
      ['requirePlace(scope, update, await knownRecord(scope, entity, { ...stored, values }, tx));', ''],
    ],
    tells: ({ what }) => what === 'did',
  },
  {
    name: 'a save that writes more than it says',
    file: 'src/server/records/write.ts',
    changes: [
      [
        "await audit(tx, scope, writer, 'update', entity, id);",
        "values[entity.fields[0]?.id ?? ''] = 'more'; await audit(tx, scope, writer, 'update', entity, id);",
      ],
      [
        'const values = { ...stored.values, ...read.values };',
        'const values: Record<string, Value | null> = { ...stored.values, ...read.values };',
      ],
    ],
    tells: ({ request, said }) => request.startsWith('PATCH') && said.startsWith('Records: '),
  },
  {
    name: 'a form that is told what is stored before it is saved',
    file: 'src/server/live/before-saving.ts',
    changes: [
      [
        'now = resolve(access, screen, known, face);',
        'now = resolve(access, screen, known, face);\n    if (now) now = { ...now, sections: now.sections.map((one) => ({ ...one, name: one.name + JSON.stringify(known.values) })) };',
      ],
    ],
    tells: ({ what, request }) => what === 'shows' && request.includes('before-saving'),
  },
  {
    name: 'an order that tells of what is closed',
    file: 'src/server/records/read.ts',
    changes: [['if (!field || access.level(access.element(field.id), undefined) === NONE)', 'if (!field)']],
    tells: ({ what, request }) => what === 'did' && request.includes('sort='),
  },
  {
    name: 'a search in what is closed',
    file: 'src/server/records/read.ts',
    changes: [
      [
        'saysSql(access, row, field, q, openToAll)',
        "sql`position(lower(${q}) in lower(coalesce(records.data ->> ${field.id}, ''))) > 0`",
      ],
      ["access.doors.field(field.id, 'existing').see !== false", 'access !== undefined'],
    ],
    tells: ({ request }) => request.includes('q='),
  },
  {
    name: 'a role that anybody may join',
    file: 'src/server/live/joining.ts',
    changes: [['one.id === role && one.joinable', 'one.id === role']],
    tells: ({ what, request }) => what === 'did' && request.includes('/account/roles/'),
  },
  {
    name: 'roles that are handed out by whom they are not theirs to give',
    file: 'src/server/live/people-management.ts',
    changes: [['given.find((one) => !this.handing.mayHandOut(one))', 'given.find(() => false)']],
    tells: ({ what, request }) => what === 'did' && /\/api\/people\/.*"give"/.test(request),
  },
  {
    name: 'somebody switched off by whom they are above',
    file: 'src/server/live/people-management.ts',
    changes: [['if (input.active !== undefined && !this.handing.holdsNoMore(person)) throw aboveYou();', '']],
    tells: ({ what, request }) => what === 'did' && /\/api\/people\/.*"active"/.test(request),
  },
  {
    name: 'a write that points to what is hidden',
    file: 'src/server/records/write.ts',
    changes: [['if (!(await openRecord(scope, tree', 'if (NONE > 0 && !(await openRecord(scope, tree']],
    tells: ({ said }) => said.includes('refers to a record that is hidden'),
  },
  {
    name: 'roles that go on after they are taken away',
    file: 'src/server/live/visit.ts',
    changes: [
      [
        'accessOf(compile(definition), viewer, circumstances)',
        'accessOf(compile(definition), ((held) => held.get(token) ?? (held.set(token, viewer), viewer))(((globalThis as any).held ??= new Map())), circumstances)',
      ],
    ],
    tells: ({ viewer }) => /until a moment ago/.test(viewer),
  },
  {
    name: 'a version that tells of hidden changes',
    file: 'src/server/records/tag.ts',
    changes: [['[record.id, seen]', '[record.id, seen, record.values]']],
    tells: ({ said }) => said.startsWith('Its version'),
  },
  {
    name: 'closed values in another form',
    file: 'src/server/records/lists.ts',
    changes: [
      [
        'version: tagOf(access, record),',
        "version: tagOf(access, record), all: Buffer.from(JSON.stringify(record.values)).toString('base64'),",
      ],
    ],
    tells: ({ what, request }) => what === 'shows' && /^GET .*\/bulk/.test(request),
  },
  {
    name: 'a button that anybody may press',
    file: 'src/server/live/session-values.ts',
    changes: [
      ['(entity && !known) || access.level(element, known) < EDIT', '(entity && !known) || EDIT < 0'],
    ],
    tells: ({ what, request }) => what === 'did' && request.includes('/session-values'),
  },
  {
    name: 'a file with what is closed in its cells',
    file: 'src/server/records/lists.ts',
    changes: [
      ["cells[column.id] ?? ''", "(cells[column.id] ?? '') + Object.values(record.values).join(' ')"],
    ],
    tells: ({ what, request, said }) =>
      what === 'shows' && request.includes('/export') && !said.startsWith('The name'),
  },
  {
    name: 'people whom anybody may look through',
    file: 'src/server/live/people-management.ts',
    changes: [['if (this.level() === 0) throw notThere();', '']],
    tells: ({ what, request }) => what === 'did' && request === 'GET /api/people',
  },
  {
    name: 'a file that forgets its door',
    file: 'src/server/records/lists.ts',
    changes: [
      [
        'if (!action || scope.access.level(scope.access.element(action.id), undefined) === NONE) throw notThere();',
        'if (!action || NONE > 0) throw notThere();',
      ],
    ],
    tells: ({ what, request }) => what === 'answers' && request.includes('/export'),
  },
  {
    name: 'an unlocking that takes anybody',
    file: 'src/server/live/unlocker.ts',
    changes: [["privilege })('be true') === true", "privilege })('be true') !== undefined"]],
    tells: ({ what, request }) => what === 'did' && request.startsWith('POST /api/unlock'),
  },
  {
    name: 'sessions that never end',
    file: 'src/server/live/visit.ts',
    changes: [
      ['gt(sessions.expiresAt, sql`now()`),', "gt(sessions.expiresAt, sql`now() - interval '1 day'`),"],
    ],
    tells: ({ viewer }) => viewer === 'With an expired session',
  },
  {
    name: 'somebody who is switched off, and goes on',
    file: 'src/server/live/visit.ts',
    changes: [
      ['        eq(people.active, true),\n', ''],
      ['viewerOfPerson(personOf(person))', 'viewerOfPerson({ ...personOf(person), active: true })'],
    ],
    tells: ({ viewer }) => viewer.includes('account disabled'),
  },
  {
    name: 'a clock that stands still',
    file: 'src/server/live/visit.ts',
    changes: [['const { moment, release } = row;', 'const { release } = row, moment = Date.now();']],
    tells: ({ viewer }) => /, on \w+day/.test(viewer),
  },
];

/** A copy of the project with all leaks planted. */
function plant() {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
  for (const one of NEEDED) cpSync(`${ROOT}/${one}`, `${FOLDER}/${one}`, { recursive: true });
  // Links to the same files where that can be, since there are many.
  const linked = spawnSync('cp', ['-al', `${ROOT}/node_modules`, `${FOLDER}/node_modules`]);
  if (linked.status !== 0) cpSync(`${ROOT}/node_modules`, `${FOLDER}/node_modules`, { recursive: true });
  /** @type {string[]} */
  const missing = [];
  for (const { name, file, changes } of LEAKS) {
    let text = readFileSync(`${FOLDER}/${file}`, 'utf8');
    for (const [from, to] of changes) {
      if (!text.includes(from)) missing.push(name);
      text = text.replace(from, to);
    }
    writeFileSync(`${FOLDER}/${file}`, text);
  }
  // What is broken on purpose need not be typed, and checking types is half of a build.
  const config = `${FOLDER}/next.config.ts`;
  const plain = readFileSync(config, 'utf8');
  writeFileSync(config, plain.replace('= {', '= { typescript: { ignoreBuildErrors: true },'));
  return missing;
}

/**
 * Breaks a copy of the product on purpose, in many ways, builds and serves it, and lets it sweep itself: is each way
 * found?
 * @param {import('../../bin/lib/cluster.mjs').Cluster} cluster
 * @returns {Promise<(readonly [string, boolean])[]>}
 */
export async function leaks(cluster) {
  const missing = plant();
  if (missing.length > 0) return missing.map((name) => [`${name} can be planted`, false]);
  const env = { NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: /** @type {const} */ ('production') };
  await runLong(
    'sh',
    ['-c', `cd "${FOLDER}" && exec "${process.execPath}" node_modules/next/dist/bin/next build`],
    {
      env,
    },
  );
  const database = cluster.database('zinc_leaks', { anew: true });
  const { demo } = await setUpDatabase(database);
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  /** @type {import('node:child_process').ChildProcess} */
  const child = spawn(process.execPath, [`${FOLDER}/src/server/front/main.mjs`, FOLDER, String(port)], {
    cwd: FOLDER,
    env: { ...process.env, ...env, DATABASE_URL: database.url, PUBLIC_URL: address, LOG_LEVEL: 'silent' },
    detached: true,
    stdio: 'ignore',
  });
  try {
    const found = await surprises(address, demo);
    return LEAKS.map(({ name, tells }) => [`a sweep finds ${name}`, found.some(tells)]);
  } finally {
    await endProcess(child.pid ?? 0, 'SIGTERM');
    if (existsSync(FOLDER)) rmSync(FOLDER, { recursive: true, force: true });
  }
}

/**
 * What a sweep finds, until it has found all of it or is done.
 * @param {string} address
 * @param {{ email: string, password: string } | undefined} demo
 * @returns {Promise<Surprise[]>}
 */
async function surprises(address, demo) {
  if (!demo) return [];
  for (let n = 0; n < 200; n++) {
    const ready = await fetch(`${address}/ready`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (ready) break;
    await pause(200);
  }
  const headers = {
    Cookie: await signIn(address, demo),
    Origin: address,
    'Content-Type': 'application/json',
  };
  const api = `${address}/studio/api/applications/larkfield/sweeps`;
  await fetch(api, { method: 'POST', headers, body: JSON.stringify({ released: false }) });
  /** @type {Map<string, Surprise>} */
  const found = new Map();
  for (let n = 0; n < MOST_SECONDS; n++) {
    await pause(1000);
    const { sweeps } = await fetch(api, { headers }).then((answer) => answer.json());
    for (const one of sweeps[0]?.surprises ?? []) found.set(JSON.stringify(one), one);
    const all = [...found.values()];
    if (LEAKS.every(({ tells }) => all.some(tells)) || !['waiting', 'running'].includes(sweeps[0]?.state))
      break;
  }
  await fetch(api, { method: 'DELETE', headers });
  return [...found.values()];
}
