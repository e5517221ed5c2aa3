import { accessOf, compile, resolve, viewerOfRole } from '@/core';
import { rightNow } from '@/core/access';
import autocannon from 'autocannon';
import { existsSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { LARKFIELD } from '@/demo/definition';
import { pageAt } from '@/server/live/screen-page';
import { scopeOf, visit } from '@/server/live/visit';
import { liveCookie } from '@/server/security/sessions';
import { Cluster, freePort } from '../bin/lib/cluster.mjs';
import { endProcess, inPackages, pause, ROOT, run } from '../bin/lib/run.mjs';
import { build, serve, setUpDatabase } from '../bin/lib/server.mjs';
import type { Measure } from './measure';
import { measureData } from './data';
import { measureOpening } from './opening';
import { manyPeople, measurePeople } from './people';
import { measureHidden } from './hidden';
import { measureRows } from './rows';
import { measureStudio } from './studio';
import { measureSweep } from './sweeping';

const SECONDS = 8;
const CONNECTIONS = 20;
const BARE = `${ROOT}/bench/bare`;

async function requestsPerSecond(url: string, cookie = ''): Promise<number> {
  const load = (duration: number) =>
    autocannon({ url, connections: CONNECTIONS, duration, headers: { cookie } });
  await load(5);
  const { requests, non2xx } = await load(SECONDS);
  if (non2xx > 0) throw new Error(`${non2xx} answers of ${url} were not good`);
  return requests.average;
}

/** A session of the demo's builder. */
async function studioCookie(address: string, password: string): Promise<string> {
  const signedIn = await fetch(`${address}/studio/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email: 'tamsin@larkfield.example', password }),
  });
  return signedIn.headers.get('set-cookie')?.split(';')[0] ?? '';
}

/** The pages to measure against: a bare one, and one written by hand. Built once, served as ours is. */
async function serveBare(url: string): Promise<{ address: string; stop: () => Promise<void> }> {
  const next = inPackages('next/dist/bin/next');
  if (!existsSync(`${BARE}/.next/BUILD_ID`))
    run(process.execPath, [next, 'build', BARE], { env: { NODE_ENV: 'production' }, quiet: true });
  const port = await freePort();
  const child = spawn(process.execPath, [next, 'start', BARE, '-H', '127.0.0.1', '-p', String(port)], {
    env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: url },
    stdio: 'ignore',
  });
  const address = `http://127.0.0.1:${port}`;
  for (let waited = 0; waited < 200; waited++) {
    if (
      await fetch(`${address}/page`).then(
        (answer) => answer.ok,
        () => false,
      )
    )
      break;
    await pause(100);
  }
  return { address, stop: () => endProcess(child.pid ?? 0, 'SIGTERM') };
}

/** Mean milliseconds of one call, one after the other. */
async function mean(work: () => Promise<unknown> | unknown, times: number): Promise<number> {
  for (let n = 0; n < times / 5; n++) await work();
  const start = performance.now();
  for (let n = 0; n < times; n++) await work();
  return (performance.now() - start) / times;
}

/** A released record page against a bare page that makes one query and against the same written by hand, and what the time goes to. */
export async function measurePages(): Promise<{ measures: Measure[]; spent: Record<string, string> }> {
  const cluster = new Cluster('bench-postgres');
  await cluster.start();
  const database = cluster.database('zinc_bench', { anew: true });
  const { url } = database;
  process.env['DATABASE_URL'] = database.owner;
  await build();
  const { demo } = await setUpDatabase(database);
  const ours = await serve(url, await freePort());
  const bare = await serveBare(url);
  try {
    const signedIn = await fetch(`${ours.address}/live/larkfield/api/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ email: 'priya.raman@larkfield.example', password: demo?.password }),
    });
    const cookie = signedIn.headers.get('set-cookie')?.split(';')[0] ?? '';
    const studio = await studioCookie(ours.address, demo?.password ?? '');
    await manyPeople();
    const list = await fetch(`${ours.address}/live/larkfield/api/records/item?size=1`, {
      headers: { cookie },
    });
    const { records } = (await list.json()) as { records: { id: string }[] };
    const address = `items/${records[0]?.id}`;
    const page = `${ours.address}/live/larkfield/${address}`;
    // A list: sample and live records are others, and a list has as many rows of each.
    const shown = 'items';
    const [pageRate, handRate, bareRate] = [
      await requestsPerSecond(page, cookie),
      await requestsPerSecond(`${bare.address}/by-hand/${records[0]?.id}`, cookie),
      await requestsPerSecond(`${bare.address}/page`),
    ];

    const { name } = await liveCookie('larkfield');
    const cookies = {
      get: (one: string) => (one === name ? { value: cookie.slice(cookie.indexOf('=') + 1) } : undefined),
    };
    const now = await visit('larkfield', cookies);
    if (!now) throw new Error('No visit');
    const access = accessOf(compile(LARKFIELD), viewerOfRole('registrar'), rightNow());
    const screen = access.compiled.tree.need('s_item', 'screen').node;
    const entity = access.compiled.tree.need('item', 'rows').node;
    const whole = await mean(() => fetch(page, { headers: { cookie } }).then((answer) => answer.text()), 150);
    const asking = await mean(() => visit('larkfield', cookies), 300);
    const making = await mean(() => pageAt(scopeOf(now), address, new URLSearchParams()), 300);
    const resolving = await mean(() => resolve(access, screen, { id: 'k', entity, values: {} }), 2000);
    const ms = (n: number): string => `${n.toFixed(3)} ms`;
    return {
      measures: [
        ...(await measureRows()),
        ...(await measureHidden()),
        ...(await measureData(ours.address, studio)),
        ...(await measurePeople(ours.address, studio)),
        ...(await measureOpening(ours.address, studio)),
        ...(await measureSweep(ours.address, now.applicationId)),
        ...(await measureStudio(ours.address, demo?.password ?? '', { address: shown, cookie })),
        {
          name: 'released record page, requests a second at 20 connections, against a bare page',
          ours: pageRate,
          against: bareRate,
          unit: '/s',
          ratio: pageRate / bareRate,
        },
        {
          name: 'the same against that page written by hand, with its rules in the code',
          ours: pageRate,
          against: handRate,
          unit: '/s',
          ratio: pageRate / handRate,
        },
      ],
      spent: {
        'one page, alone': ms(whole),
        'session, person, roles and release (1 query)': ms(asking),
        'the record and what it points to (queries)': ms(making - resolving),
        'deciding and building the tree': ms(resolving),
        'the rest: HTTP, rendering on the server': ms(whole - asking - making),
      },
    };
  } finally {
    await ours.stop();
    await bare.stop();
    await cluster.stop();
  }
}
