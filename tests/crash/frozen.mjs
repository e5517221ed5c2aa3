import { existsSync, statSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { freePort } from '../../bin/lib/cluster.mjs';
import { pause, ROOT, run } from '../../bin/lib/run.mjs';
import { serve, setUpDatabase } from '../../bin/lib/server.mjs';
import { signIn } from './crash.mjs';

/** @param {string} url @param {RequestInit} [init] */
async function timed(url, init) {
  const begun = Date.now();
  const answer = await fetch(url, { redirect: 'manual', ...init });
  const body = await answer.text();
  return { status: answer.status, took: Date.now() - begun, body };
}

/** The cluster's processes, the first one first. @param {number} pid */
const processesOf = (pid) => [
  pid,
  ...readdirSync('/proc')
    .filter((one) => /^\d+$/.test(one))
    .filter((one) => {
      try {
        return readFileSync(`/proc/${one}/stat`, 'utf8').split(') ')[1]?.split(' ')[1] === String(pid);
      } catch {
        return false;
      }
    })
    .map(Number),
];

/**
 * Listens to news more often than requests are taken at once, and asks for a page beside: is it answered?
 * @param {string} address @param {{ email: string, password: string } | undefined} demo @param {string} page
 */
async function besideNews(address, demo, page) {
  const headers = { Cookie: demo ? await signIn(address, demo) : '' };
  const stop = new AbortController();
  /** @type {Response[]} */
  const open = [];
  try {
    for (let n = 0; n < 20; n++)
      open.push(
        await fetch(`${address}/studio/api/applications/larkfield/news`, { headers, signal: stop.signal }),
      );
    const { status } = await timed(page);
    return open.every((one) => one.status === 200) && status === 200;
  } finally {
    stop.abort();
  }
}

/**
 * Asks for hundreds of small answers and goes away in the middle of them, then for a page, until it is answered: the
 * last of them may still be on their way. Is it, in time?
 * @param {string} address @param {string} page
 */
async function afterLeaving(address, page) {
  for (let n = 0; n < 600; n++) {
    const stop = new AbortController();
    fetch(`${address}/icon.svg`, { signal: stop.signal })
      .then((answer) => answer.text())
      .catch(() => undefined);
    setTimeout(() => stop.abort(), (n % 20) * 2);
    await pause(8);
  }
  const stop = AbortSignal.timeout(15_000);
  while (!stop.aborted) {
    const answer = await timed(page, { signal: stop }).catch(() => undefined);
    if (answer?.status === 200) return true;
    await pause(200);
  }
  return false;
}

/** Some of a cluster's processes end by themselves at any time. @param {number} pid @param {NodeJS.Signals} signal */
function signalled(pid, signal) {
  try {
    return process.kill(pid, signal);
  } catch {
    return false;
  }
}

/**
 * With the database frozen every request ends within ten seconds, in words of ours, and all is well once it goes
 * on. With more requests than are worked on at once, the rest is refused at once, and /health answers in time.
 * @param {import('../../bin/lib/cluster.mjs').Cluster} cluster
 * @returns {Promise<(readonly [string, boolean])[]>}
 */
export async function frozen(cluster) {
  const database = cluster.database('zinc_frozen', { anew: true });
  const { demo } = await setUpDatabase(database);
  const server = await serve(database.url, await freePort(), { MOST_TAKEN: '12' });
  const page = `${server.address}/live/larkfield/catalogue`;
  /** @type {number[]} */
  const all = [];
  const html = { headers: { accept: 'text/html' } };
  try {
    const before = await timed(page, html);
    for (const pid of processesOf(cluster.pid)) if (signalled(pid, 'SIGSTOP')) all.push(pid);
    const asked = [timed(page, html), timed(`${server.address}/live/larkfield/api/records/item`)];
    for (let n = 0; n < 8; n++) {
      await pause(700);
      asked.push(timed(page, html), timed(`${server.address}/health`));
    }
    const answers = await Promise.all(asked);
    for (const pid of all.splice(0)) signalled(pid, 'SIGCONT');
    let after = before;
    for (let n = 0; n < 50; n++) {
      await pause(200);
      after = await timed(page, html);
      if (after.status === 200) break;
    }
    const rush = await Promise.all([
      ...Array.from({ length: 150 }, () => timed(page, html)),
      pause(50).then(() => timed(`${server.address}/health`)),
    ]);
    const refused = rush.filter(({ status }) => status === 503);
    const health = rush.at(-1);
    const left = await afterLeaving(server.address, page);
    const beside = await besideNews(server.address, demo, page);
    const words = await asApp(cluster, database.url);
    return [
      [
        'with the database frozen every request ends within ten seconds, and goes on after',
        before.status === 200 &&
          answers.every(({ took }) => took < 10_000) &&
          answers.every(({ status }) => status === 503 || status === 200) &&
          answers.some(({ status, body }) => status === 503 && body.includes('Temporarily unavailable')) &&
          after.status === 200,
      ],
      ['who listens to news holds no place at work', beside],
      ['nor does who goes away in the middle of an answer', left],
      [
        'what is too much at once is refused at once, and /health answers in time',
        refused.length > 20 &&
          refused.every(({ took }) => took < 2000) &&
          rush.some(({ status }) => status === 200) &&
          health?.status === 200 &&
          health.took < 2000,
      ],
      ['the server’s role may change rows, and neither tables nor what happened', words],
    ];
  } finally {
    // A cluster that stays frozen could not be ended.
    for (const pid of all) process.kill(pid, 'SIGCONT');
    await server.stop();
  }
}

/** @param {import('../../bin/lib/cluster.mjs').Cluster} cluster @param {string} url */
function asApp(cluster, url) {
  /** @param {string} statement */
  const may = (statement) =>
    run(`${cluster.programs}/psql`, ['-d', url, '-XtAc', statement], { quiet: true, allowFailure: true })
      .status === 0;
  return (
    may('update people set name = name where id is null') &&
    ![
      'create table x (a int)',
      'drop table people',
      'delete from audit_events',
      'update releases set number = 1',
      'create role x',
      'select pg_read_file($$/etc/passwd$$)',
      'alter table people add x int',
      'set role zinc',
      'update applications set sweep_of = id',
    ].some(may)
  );
}

/**
 * A backup, put back into a fresh copy, has the same in it.
 * @returns {Promise<readonly [string, boolean]>}
 */
export async function backedUp() {
  const folders = ['backup-from', 'backup-to'].map((name) => `${ROOT}/.data/test-${name}`);
  const file = `${ROOT}/.data/test-backup`;
  for (const folder of [...folders, file]) rmSync(folder, { recursive: true, force: true });
  /** @param {string} folder @param {string} command @param {string[]} args */
  const at = (folder, command, ...args) =>
    run(`${ROOT}/bin/${command}`, args, {
      env: { ZINC_GATE_DATA: folder, DATABASE_URL: undefined },
      quiet: true,
      allowFailure: true,
    });
  /** What the tables hold, as one hash of all their rows. @param {string} folder */
  const contents = async (folder) => {
    const script = `
      import { Cluster } from '${ROOT}/bin/lib/cluster.mjs';
      import { setUpDatabase } from '${ROOT}/bin/lib/server.mjs';
      import { run } from '${ROOT}/bin/lib/run.mjs';
      console.log = console.error;
      const cluster = new Cluster('postgres');
      await cluster.start();
      const database = cluster.database('zinc_gate');
      await setUpDatabase(database);
      const sql = ['people', 'records', 'assignments', 'releases', 'snapshots', 'builders', 'memberships', 'installation']
        .map((table) => "select md5(string_agg(t::text, ',' order by t::text)) from " + table + ' t').join(' union all ');
      process.stdout.write(run(cluster.programs + '/psql', ['-d', database.owner, '-XtAc', sql], { quiet: true }).output);
      await cluster.stop();`;
    return run(process.execPath, ['--input-type=module', '-e', script], {
      env: { ZINC_GATE_DATA: folder, DATABASE_URL: undefined },
      quiet: true,
    }).output;
  };
  const [from = '', to = ''] = folders;
  const before = await contents(from);
  const done =
    at(from, 'backup', file).status === 0 &&
    existsSync(file) &&
    (statSync(file).mode & 0o777) === 0o600 &&
    at(to, 'restore', file).status === 0;
  const after = done ? await contents(to) : '';
  const twice = at(to, 'restore', file).status;
  for (const folder of [...folders, file]) rmSync(folder, { recursive: true, force: true });
  return [
    'a backup is whole in a fresh copy, and is put over nothing that is there',
    before.split('\n').length === 8 && before === after && twice === 1,
  ];
}
