import net from 'node:net';
import { freePort } from '../../bin/lib/cluster.mjs';
import { pause, ROOT, runLong } from '../../bin/lib/run.mjs';
import { serve, setUpDatabase } from '../../bin/lib/server.mjs';
import { signIn } from './crash.mjs';

/** `/health` answers within this time, or five times what it takes beside ordinary work here, in milliseconds. */
const HEALTHY_WITHIN = 500;
const EVERY = 50;
const STUDIO = '/studio/api/applications/organisation';

/** The longest that `/health` took while something goes on, asked every 50 ms. @param {string} address @param {() => Promise<unknown>} work */
async function worstHealth(address, work) {
  let [worst, goesOn] = [0, true];
  const polled = (async () => {
    while (goesOn) {
      const begun = performance.now();
      await fetch(`${address}/health`).then((answer) => answer.text());
      worst = Math.max(worst, performance.now() - begun);
      await pause(EVERY);
    }
  })();
  await pause(2 * EVERY);
  await work().catch(() => undefined);
  goesOn = false;
  await polled;
  return worst;
}

/**
 * Sends the beginning of a body, and then a byte every second. Returns whether the server has let go of each.
 * @param {string} address @param {number} many
 */
function slowSenders(address, many) {
  const { port, host } = new URL(address);
  let closed = 0;
  const sockets = Array.from({ length: many }, () => {
    const socket = net.connect(Number(port), '127.0.0.1');
    socket.on('error', () => undefined);
    socket.write(
      `POST /studio/api/session HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/json\r\nContent-Length: 100000\r\n\r\n{`,
    );
    const drip = setInterval(() => socket.write('a'), 1000);
    socket.on('close', () => {
      closed++;
      clearInterval(drip);
    });
    return socket;
  });
  return {
    closed: () => closed,
    end: () => {
      for (const one of sockets) one.destroy();
    },
  };
}

/** The first line and the headers of the answer to a path, as it is written. @param {string} address @param {string} path @param {string} [host] */
const rawAnswer = (address, path, host = new URL(address).host) =>
  new Promise((resolve) => {
    const socket = net.connect(Number(new URL(address).port), '127.0.0.1');
    let said = '';
    socket.on('data', (part) => (said += part));
    socket.on('error', () => resolve(said));
    socket.on('close', () => resolve(said));
    socket.setTimeout(10_000, () => socket.destroy());
    socket.write(`GET ${path} HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`);
  });

const ABNORMAL = [
  '/_next/static/../../live/larkfield/catalogue',
  '/_next/static/%2e%2e/%2E%2e/studio/sign-in',
  '/_next/static/..%2f..%2fstudio/sign-in',
  '/_next/static/%252e%252e/studio',
  '/live/./larkfield/catalogue',
  '//live/larkfield/catalogue',
  '/live\\larkfield\\catalogue',
  '/live/larkfield/%5c..%5c',
  '/live/larkfield/%ff',
  '/live/larkfield/%00',
  'http://127.0.0.1/studio/sign-in',
];

/** A CSV file as a form has it. @param {string | Uint8Array<ArrayBuffer>} text @param {Record<string, string>} [more] */
function form(text, more = {}) {
  const made = new FormData();
  made.append('files', new Blob([text], { type: 'text/csv' }), 'rows.csv');
  for (const [name, value] of Object.entries(more)) made.append(name, value);
  return made;
}

/** @param {number} rows @param {number} columns @param {(row: number, column: number) => string} cell */
const csv = (rows, columns, cell) =>
  [
    Array.from({ length: columns }, (_, n) => `c${n}`).join(','),
    ...Array.from({ length: rows }, (_, r) =>
      Array.from({ length: columns }, (__, n) => cell(r, n)).join(','),
    ),
  ].join('\n');

const condition = (/** @type {number} */ n) => ({
  all: Array.from({ length: 2 }, (_, m) => ({
    compare: '=',
    left: { user: 'email' },
    right: { value: `${n} ${m}` },
  })),
});

/** What keeps a server busy, by what it is: a request each. @type {readonly (readonly [string, () => readonly [string, RequestInit]])[]} */
const HOSTILE = [
  [
    'a CSV file of 20 MB',
    () => ['/studio/api/making/look', post(form(csv(100_000, 20, (r, n) => `${r * n}.${n}1`)))],
  ],
  [
    'a CSV file of days that are none',
    () => ['/studio/api/making/look', post(form(csv(60_000, 12, (r) => `${r % 40}/13/${r}`)))],
  ],
  [
    'a CSV file of keys',
    () => ['/studio/api/making/look', post(form(csv(20_000, 60, (r, n) => `k${r}-${n}`)))],
  ],
  ['a CSV file of 40,000 columns', () => ['/studio/api/making/look', post(form(csv(20, 40_000, () => 'x')))]],
  ['a cell of 20 MB', () => ['/studio/api/making/look', post(form(`a,b\n"${'x'.repeat(20_000_000)}",1\n`))]],
  ['quotes without an end', () => ['/studio/api/making/look', post(form(`a\n${'"'.repeat(9_000_001)}`))]],
  ['a form of 200,000 parts', () => ['/studio/api/making/look', parts(200_000)]],
  [
    'people of 25 MB',
    () => [
      `${STUDIO}/people/csv?dry=yes`,
      {
        method: 'POST',
        headers: { 'Content-Type': 'text/csv' },
        body: `email,name\n${'x@y.example,Name\n'.repeat(1_400_000)}`,
      },
    ],
  ],
  [
    'records of 20 MB',
    () => [
      `${STUDIO}/records/e0/csv`,
      post(
        form(
          csv(100_000, 8, (r) => `value ${r}`),
          { dry: 'yes' },
        ),
      ),
    ],
  ],
  [
    '5,000 questions of people',
    () => [
      `${STUDIO}/people/known`,
      send({
        people: [],
        questions: Array.from({ length: 5000 }, (_, n) => condition(n)),
        values: [],
        compared: [],
      }),
    ],
  ],
  ['a query of parameters', () => [`${STUDIO}/proof?${'a&'.repeat(3900)}`, {}]],
  [
    'an edit of 900 kB',
    () => [
      `${STUDIO}/draft`,
      send({
        base: 0,
        ask: 'edit',
        edit: {
          do: 'all',
          edits: Array.from({ length: 9000 }, (_, n) => ({
            do: 'addLine',
            gate: 's1',
            line: { id: `x${n}`, who: { kind: 'signed-in' }, what: 'see' },
            at: 0,
          })),
        },
      }),
    ],
  ],
  [
    'a definition that is none',
    () => [
      '/studio/api/making',
      send({
        from: 'file',
        slug: 'x',
        name: 'X',
        definition: Array.from({ length: 60_000 }, (_, n) => ({ n })),
      }),
    ],
  ],
  ['a review', () => [`${STUDIO}/review`, send({})]],
  ['the grid as a file', () => [`${STUDIO}/grid/csv`, {}]],
  ['who gets a field', () => [`${STUDIO}/who-gets/e1f0`, {}]],
  [
    'what an edit would do',
    () => [
      `${STUDIO}/effect`,
      send({
        edit: {
          do: 'addLine',
          gate: 'organisation',
          line: { id: 'lz', who: { kind: 'role', role: 'r1' }, what: 'block' },
          at: 0,
        },
      }),
    ],
  ],
  ['a bench', () => ['/studio/organisation/gates', {}]],
  ['a file of records', () => [`${STUDIO}/records/e0?records=live`, {}]],
];

/** @param {FormData} body */
const post = (body) => ({ method: 'POST', body });
/** @param {unknown} body */
const send = (body) => ({
  method: 'POST',
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});
/** @param {number} many */
const parts = (many) => ({
  method: 'POST',
  headers: { 'Content-Type': 'multipart/form-data; boundary=b' },
  body: `${'--b\r\nContent-Disposition: form-data; name="a"\r\n\r\nx\r\n'.repeat(many)}--b--\r\n`,
});

/**
 * Whoever sends slowly, asks for odd paths or sends what takes long to read keeps nobody else waiting: beside each,
 * `/health`, a sign-in and a released page answer.
 * @param {import('../../bin/lib/cluster.mjs').Cluster} cluster
 * @returns {Promise<(readonly [string, boolean])[]>}
 */
export async function stayingUp(cluster) {
  const database = cluster.database('zinc_busy', { anew: true });
  const { demo } = await setUpDatabase(database);
  const { status, said } = await runLong(
    process.execPath,
    ['--import', 'tsx', `${ROOT}/bench/put-organisation.ts`, '400', '20000'],
    {
      env: { DATABASE_URL: database.url },
      allowFailure: true,
    },
  );
  if (status !== 0 || !demo) throw new Error(`The large application was not put into the database. ${said}`);
  const port = await freePort();
  const live = `localhost:${port}`;
  const server = await serve(database.url, port, { LIVE_ORIGIN: `http://${live}` });
  const { address } = server;
  const page = `http://${live}/live/larkfield/catalogue`;
  try {
    const headers = { Cookie: await signIn(address, demo), Origin: address };
    const ask = async (/** @type {string} */ path, /** @type {RequestInit} */ init = {}) => {
      const stop = AbortSignal.timeout(20_000);
      const answer = await fetch(address + path, {
        ...init,
        signal: stop,
        headers: { ...init.headers, ...headers },
      });
      await answer.text();
      return answer.status;
    };
    let answered = true;
    const ordinary = async () => {
      for (let n = 0; n < 5; n++) {
        const shown = await fetch(page);
        answered &&= shown.status === 200 && (await shown.text()).length > 1000;
        await signIn(address, demo).catch(() => (answered = false));
      }
    };
    const most = Math.max(HEALTHY_WITHIN, 5 * (await worstHealth(address, ordinary)));
    const slow = slowSenders(address, 200);
    await pause(500);
    const beside = await worstHealth(address, ordinary);
    for (let waited = 0; waited < 140 && slow.closed() < 200; waited++) await pause(100);
    const letGo = slow.closed() === 200;
    slow.end();
    const refused = await Promise.all(
      ABNORMAL.flatMap((path) =>
        [address, `http://${live}`].map((from) => rawAnswer(address, path, new URL(from).host)),
      ),
    );
    const studioOnLive = await rawAnswer(address, '/studio/sign-in', live);
    /** @type {string[]} */
    const late = [];
    for (const [name, make] of HOSTILE) {
      const [path, init] = make();
      const worst = await worstHealth(address, () => ask(path, init));
      if (worst > most) late.push(`${name}: ${Math.round(worst)} ms`);
    }
    const after = (await ask(`${STUDIO}/proof/counts`)) === 200;
    return [
      [
        `beside 200 slow senders pages and sign-ins are answered${answered ? '' : ' (they were not)'}`,
        answered && beside <= most,
      ],
      ['who sends slowly is let go within ten seconds or so', letGo],
      [
        'paths that could be read in two ways are refused, whoever is asked',
        refused.every((one) => / 400 /.test(one.split('\r\n')[0])),
      ],
      ['the live origin serves nothing of the studio', / 404 /.test(studioOnLive.split('\r\n')[0])],
      [
        `beside what takes long, /health answers${late.length > 0 ? ` (late by ${late.join(', ')})` : ''}`,
        late.length === 0,
      ],
      ['and all is well after it', after],
    ];
  } finally {
    await server.stop();
  }
}
