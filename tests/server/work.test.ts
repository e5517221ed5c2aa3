import { afterEach, describe, expect, it } from 'vitest';
import { Pool } from '@/server/work/pool';
import { KeptAnswers } from '@/server/work/kept';
import { LANES, WAITING_EACH } from '@/server/work/limits';
import type { Upload } from '@/contract/body';
import type { Refusal } from '@/server/http/problem';

/** A form with a CSV file of so many rows, as it is sent. */
function upload(rows: number): { upload: Upload } {
  const lines = Array.from({ length: rows }, (_, n) => `name ${n},${n}.5,2026-03-${(n % 28) + 1}`);
  const text = `--b\r\nContent-Disposition: form-data; name="files"; filename="a.csv"\r\n\r\nname,amount,day\n${lines.join('\n')}\r\n--b--\r\n`;
  return { upload: { type: 'multipart/form-data; boundary=b', bytes: new TextEncoder().encode(text) } };
}

const pools: Pool[] = [];
const newPool = (memory?: number): Pool => {
  const pool = new Pool(memory);
  pools.push(pool);
  return pool;
};
afterEach(() => {
  for (const pool of pools.splice(0)) pool.end();
});

const codeOf = (done: Promise<unknown>): Promise<string | undefined> =>
  done.then(
    () => undefined,
    (error: Refusal) => error.code,
  );

describe('work beside the server', () => {
  it('makes what is asked for, as JSON, and is refused in the words of the job', async () => {
    const pool = newPool();
    const made = JSON.parse(await pool.run('look-at-sheets', upload(50), { owner: 'a' })) as {
      sheets: { rows: number; columns: { as: { kind: string } }[] }[];
    };
    expect(made.sheets[0]?.rows).toBe(50);
    expect(made.sheets[0]?.columns.map(({ as }) => as.kind)).toEqual(['text', 'number', 'date']);
    const refused = await pool
      .run('look-at-sheets', upload(0), { owner: 'a' })
      .catch((error: Refusal) => error);
    expect(refused).toMatchObject({ status: 422, code: 'csv' });
  });

  it('that takes too much memory ends alone, and the next is done', async () => {
    const pool = newPool(60);
    expect(await codeOf(pool.run('look-at-sheets', upload(190_000), { owner: 'a' }))).toBe('too-large');
    expect(await codeOf(pool.run('look-at-sheets', upload(5), { owner: 'a' }))).toBeUndefined();
  });

  it('stops when nobody waits for it, and makes room', async () => {
    const pool = newPool();
    const stop = new AbortController();
    const left = codeOf(pool.run('look-at-sheets', upload(190_000), { owner: 'a', signal: stop.signal }));
    setTimeout(() => stop.abort(), 300);
    expect(await left).toBe('gone');
    expect(await codeOf(pool.run('look-at-sheets', upload(5), { owner: 'a', signal: stop.signal }))).toBe(
      'gone',
    );
    expect(await codeOf(pool.run('look-at-sheets', upload(5), { owner: 'a' }))).toBeUndefined();
  });

  it('of one person leaves room for that of others, and only so much of it waits', async () => {
    const pool = newPool();
    const done: string[] = [];
    const ask = (owner: string, rows: number) =>
      codeOf(pool.run('look-at-sheets', upload(rows), { owner })).then((code) => {
        done.push(owner);
        return code;
      });
    const loud = Array.from({ length: WAITING_EACH + 1 }, () => ask('loud', 8000));
    const quiet = ask('quiet', 5);
    expect(await quiet).toBeUndefined();
    // All but the few that are worked on at once, and the one that was refused, are still to come.
    expect(done.filter((one) => one === 'loud').length).toBeLessThanOrEqual(LANES.long.each + 2);
    expect((await Promise.all(loud)).filter((code) => code === 'too-many')).toHaveLength(1);
  });
});

it('answers are kept for a while, and the oldest go first', () => {
  const kept = new KeptAnswers();
  for (let n = 0; n < 25; n++) kept.put(`key ${n}`, String(n));
  expect([kept.get('key 0'), kept.get('key 4'), kept.get('key 5'), kept.get('key 24')]).toEqual([
    undefined,
    undefined,
    '5',
    '24',
  ]);
  kept.put('large', 'x'.repeat(19_999_990));
  expect(kept.get('key 5')).toBeUndefined();
  expect(kept.get('large')).toHaveLength(19_999_990);
});
