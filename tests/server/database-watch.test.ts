import { createServer } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterEach, beforeAll, expect, test } from 'vitest';
import { databaseUrl } from '@/server/config.mjs';
import { watchDatabase } from '@/server/front/database-watch.mjs';
import { emptyDatabase } from './setting';

beforeAll(emptyDatabase);

let watch: ReturnType<typeof watchDatabase> | undefined;
afterEach(() => watch?.stop());

/** Works without a pause: nothing is heard meanwhile. */
function workFor(ms: number): void {
  const until = performance.now() + ms;
  while (performance.now() < until);
}

test('a database is not away since the server was at work for longer than it would be waited for', async () => {
  watch = watchDatabase(databaseUrl());
  const found: boolean[] = [];
  // Begun while it connects, and again and again while it asks.
  for (let n = 0; n < 4; n++) {
    workFor(2600);
    await sleep(300);
    found.push(watch.away);
    await sleep(200 * n);
  }
  expect(found).toEqual([false, false, false, false]);
  expect(watch.current).toBe(true);
});

test('one that answers nothing is away after a moment, and so is one that refuses', async () => {
  const silent = createServer((socket) => socket.on('error', () => undefined));
  await new Promise<void>((begun) => silent.listen(0, '127.0.0.1', begun));
  const address = silent.address();
  if (address === null || typeof address === 'string') throw new Error('It listens on no port');
  const url = `postgres://zinc@127.0.0.1:${address.port}/zinc`;
  watch = watchDatabase(url);
  expect(watch.away).toBe(false);
  await expect.poll(() => watch?.away, { timeout: 20_000 }).toBe(true);
  watch.stop();
  silent.close();
  watch = watchDatabase(url);
  await expect.poll(() => watch?.away, { timeout: 20_000 }).toBe(true);
});
