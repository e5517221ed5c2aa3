import { createServer, type IncomingMessage } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { receiveBody } from '@/server/front/body.mjs';
import { tokensIn } from '@/server/front/known-session.mjs';
import { LIMITS } from '@/server/front/limits.mjs';
import { addressKey, Shares } from '@/server/front/shares.mjs';
import { Slots } from '@/server/front/slots.mjs';
import { hasTooMany, readTarget } from '@/server/front/target.mjs';
import { runs } from '../runs';

const piece = fc.constantFrom(
  ...[
    'live',
    'studio',
    '_next',
    'static',
    'larkfield',
    '.',
    '..',
    '%2e',
    '%2E%2e',
    '%2f',
    '%5c',
    '\\',
    '',
    'a b',
  ],
  ...[
    '%00',
    '%ff',
    '%C3%A9',
    '%252e',
    '%25',
    '%6cive',
    ';x',
    'a.b',
    '...',
    '(inside)',
    '[app]',
    '#',
    '\t',
    'é',
  ],
);
const target = fc.array(piece, { maxLength: 6 }).map((parts) => `/${parts.join('/')}`);

describe('the target of a request', () => {
  it('is read as the framework reads it, or refused: whatever the path', () => {
    let taken = 0;
    fc.assert(
      fc.property(fc.oneof(target, fc.webPath(), fc.string()), (written) => {
        const read = readTarget(written);
        if (!read) return;
        taken++;
        const { path, query } = read;
        // The framework resolves the target against its origin (WHATWG URL), and matches the segments as they are decoded.
        const url = new URL(path + query, 'http://zinc.test');
        expect([url.host, url.pathname]).toEqual(['zinc.test', path]);
        const decoded = path.split('/').map((segment) => decodeURIComponent(segment));
        expect(decoded.join('/').split('/')).toEqual(decoded);
        expect(
          new URL(decoded.map(encodeURIComponent).join('/'), 'http://zinc.test').pathname.split('/'),
        ).toHaveLength(path.split('/').length);
        expect(readTarget(path)?.path).toBe(path);
      }),
      { numRuns: runs(5000) },
    );
    expect(taken).toBeGreaterThan(100);
  });

  it.each([
    ['/live/larkfield/items?l.q=a%20b&x=[1]', '/live/larkfield/items', '?l.q=a%20b&x=[1]'],
    ['/%6cive/larkfield', '/live/larkfield', ''],
    ['/a/%e2%82%ac', '/a/%E2%82%AC', ''],
    ['/', '/', ''],
    ['/live/', '/live/', ''],
  ])('%s is %s', (written, path, query) => {
    expect(readTarget(written)).toEqual({ path, query });
  });

  it.each([
    '/a/../b',
    '/a/%2e%2e/b',
    '//a',
    '/a//b',
    '/a\\b',
    '/a%2fb',
    '/%',
    '/a?b#c',
    '*',
    '',
    'http://a/b',
  ])('%s is refused', (written) => expect(readTarget(written)).toBeUndefined());

  it('has so many parameters and no more', () => {
    expect(hasTooMany(`?${'a&'.repeat(LIMITS.parameters - 1)}a`)).toBe(false);
    expect(hasTooMany(`?${'a&'.repeat(LIMITS.parameters)}a`)).toBe(true);
  });
});

describe('shares', () => {
  it('never give one more than a quarter, and take everything back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c', 'd', 'e'), fc.boolean()), { maxLength: 200 }),
        (asked) => {
          const shares = new Shares(20);
          const held: string[] = [];
          for (const [key, more] of asked) {
            if (more && shares.hasRoom([key])) {
              shares.use([key]);
              held.push(key);
            } else if (!more && held.includes(key)) {
              shares.use([key], -1);
              held.splice(held.indexOf(key), 1);
            }
            expect(held.length).toBeLessThanOrEqual(20);
            expect(held.filter((one) => one === key).length).toBeLessThanOrEqual(5);
          }
          for (const key of held) shares.use([key], -1);
          expect([shares.used, shares.by.size]).toEqual([0, 0]);
        },
      ),
      { numRuns: runs(500) },
    );
  });

  it('take an IPv6 network for one, and an IPv4 address in IPv6 for what it is', () => {
    expect(addressKey('2001:db8:1:2::1')).toBe(addressKey('2001:db8:1:2:ffff::9'));
    expect(addressKey('2001:db8:1:2::1')).not.toBe(addressKey('2001:db8:1:3::1'));
    expect(addressKey('::ffff:10.0.0.7')).toBe(addressKey('10.0.0.7'));
    expect(addressKey('nonsense')).toBe('from unknown');
  });

  it('of slots leave room for others, in the line and at work', async () => {
    const slots = new Slots(40);
    const begun: string[] = [];
    const take = (key: string): boolean => slots.take({ keys: [key], begin: () => void begun.push(key) });
    const taken = Array.from({ length: 30 }, () => take('loud'));
    expect(taken.filter(Boolean)).toHaveLength(10);
    expect(take('quiet')).toBe(true);
    for (let n = 0; n < 2000; n++) await new Promise((resolve) => setImmediate(resolve));
    expect(begun.filter((one) => one === 'loud')).toHaveLength(LIMITS.atWork / LIMITS.share);
    expect(begun).toContain('quiet');
  });
});

describe('a body', () => {
  /** What becomes of a body that is sent in these parts, so many milliseconds after each other. */
  async function received(parts: readonly string[], after: number, length: number, room = 1e6) {
    const bytes = new Shares(room);
    const bounds = { most: 1e6, within: 1200, rate: 1 };
    const found = new Promise<{ received: IncomingMessage | string; text: string }>((resolve) => {
      const server = createServer((request, response) => {
        void receiveBody(request, bounds, bytes, ['a']).then(async ({ received: one, release }) => {
          let text = '';
          if (typeof one !== 'string') for await (const part of one) text += String(part);
          release();
          response.end();
          server.close();
          server.closeAllConnections();
          resolve({ received: one, text });
        });
      });
      server.listen(0, '127.0.0.1', () => {
        const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
        socket.on('error', () => undefined);
        socket.write(`POST / HTTP/1.1\r\nHost: a\r\nContent-Length: ${length}\r\n\r\n`);
        parts.forEach((part, n) => setTimeout(() => socket.write(part), after * n));
      });
    });
    const result = await found;
    expect([bytes.used, bytes.by.size]).toEqual([0, 0]);
    return result;
  }

  it('is handed on whole, however it comes', async () => {
    expect(await received(['ab', 'cd', 'ef'], 100, 6)).toMatchObject({ text: 'abcdef' });
  });

  it('that does not come in time is not waited for', async () => {
    expect((await received(['ab'], 0, 6)).received).toBe('slow');
  });

  it('for which there is no room is not taken', async () => {
    expect((await received(['x'.repeat(500)], 0, 500, 1000)).received).toBe('full');
  });
});

it('the sessions of a request are read from its cookies, devices are not', () => {
  expect(
    tokensIn(
      'zinc-a-studio=one; zinc-device.a-studio=two; __Host-zinc-a-live-x-device=five; other=three; __Host-zinc-a-live-x=four',
    ),
  ).toEqual(['one', 'five', 'four']);
  expect(tokensIn(undefined)).toEqual([]);
});
