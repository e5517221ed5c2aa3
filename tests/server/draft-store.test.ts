import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { type Edit, newLine } from '@/core/edit';
import type { Line } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { change, draftOf, revisionsSince, undoStateIn } from '@/server/drafts/draft';
import type { Ask } from '@/server/drafts/entries';
import { problemResponse, type Refused } from '@/server/http/problem';
import { DraftStore } from '@/ui/studio/shell/draft-store';
import { person } from './visits';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';

let id: string;
let ada: string;
let bo: string;
let server: Server;
/** What becomes of the next answers on their way: lost before or after the work, or cut off in the middle. */
let faults: ('lost-before' | 'lost-after' | 'cut-off' | 'away')[] = [];
/** How often it was asked what others did. */
let fetches = 0;

/** The draft's real work behind real HTTP, on a line that can fail. */
beforeAll(async () => {
  await emptyDatabase();
  server = createServer((request, response) => {
    let text = '';
    request.on('data', (part) => (text += part));
    request.on('end', () => {
      void (async () => {
        const fault = faults.shift();
        if (fault === 'lost-before') return response.destroy();
        if (fault === 'away') return response.writeHead(503).end('{}');
        const since = new URL(request.url ?? '', 'http://localhost').searchParams.get('since');
        if (since !== null) {
          fetches++;
          const told = {
            since: await revisionsSince(id, Number(since)),
            standing: await undoStateIn(id, ada),
          };
          return response.end(JSON.stringify(told));
        }
        const { base, ask, edit, request: name, confirmed } = JSON.parse(text);
        const asked: Ask = ask === 'edit' ? { edit } : ask;
        const made = await change(id, ada, base, asked, { request: name, confirmed }).then(
          (done) => Response.json(done),
          (error: unknown) => problemResponse(error as Refused),
        );
        const body = await made.text();
        if (fault === 'lost-after') return response.destroy();
        response.writeHead(made.status, { 'Content-Length': Buffer.byteLength(body) });
        if (fault !== 'cut-off') return response.end(body);
        response.write(body.slice(0, body.length / 2));
        response.destroy();
      })();
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const { fetch } = globalThis;
  // As in a browser, addresses are those of the page's own server.
  vi.stubGlobal('fetch', (address: string, how?: RequestInit) => fetch(new URL(address, origin), how));
});
afterAll(async () => {
  vi.unstubAllGlobals();
  server.close();
  await dropApplications();
});

const kept = new Map<string, string>();
let told: string[] = [];
let confirms = true;

async function open(): Promise<DraftStore> {
  const draft = await draftOf(id);
  return new DraftStore(id, draft.definition, draft.revision, await undoStateIn(id, ada), {
    tell: (message) => told.push(message),
    confirm: () => Promise.resolve(confirms),
    keeps: {
      getItem: (key) => kept.get(key) ?? null,
      setItem: (key, value) => void kept.set(key, value),
      removeItem: (key) => void kept.delete(key),
    },
  });
}

beforeEach(async () => {
  await dropApplications();
  const definition = underNewId(LARKFIELD);
  id = definition.id;
  ({ ada, bo } = await application(definition));
  [faults, told, confirms, fetches] = [[], [], true, 0];
  kept.clear();
});

const line = (name: string): Line => ({ ...newLine({ kind: 'person', person: name }, 'see'), id: name });
const add = (name: string): Edit => ({ do: 'addLine', gate: 's_stores', line: line(name), at: 0 });
const until = async (holds: () => boolean): Promise<void> => {
  for (let n = 0; n < 600 && !holds(); n++) await new Promise((resolve) => setTimeout(resolve, 25));
  expect(holds()).toBe(true);
};
const saved = (store: DraftStore) => until(() => store.read().saved === 'saved');
const names = async () => (await revisionsSince(id, 0)).map(({ edit }) => edit.do);

describe('the browser’s store of edits', () => {
  it.each(['lost-before', 'lost-after', 'cut-off', 'away'] as const)(
    'makes each edit and each undo once, though an answer is %s',
    async (fault) => {
      const store = await open();
      faults = [fault];
      store.apply(add('one'));
      store.apply(add('two'));
      expect(store.read().definition.gates['s_stores']?.lines[0]).toEqual(line('two'));
      await saved(store);
      faults = [fault, fault];
      store.turn('undo');
      await until(() => faults.length === 0);
      await saved(store);
      expect(await names()).toEqual(['addLine', 'addLine', 'removeLine']);
      expect(store.read().definition).toEqual((await draftOf(id)).definition);
      expect(store.read().standing).toEqual(await undoStateIn(id, ada));
      // What was taken back is told where the answer arrives; nothing else is.
      expect(told.filter((one) => !one.startsWith('Undone: Stores.'))).toEqual([]);
    },
  );

  it('keeps what waits over a reload, and does not make it twice', async () => {
    const before = await open();
    faults = ['lost-after', 'lost-before', 'lost-before', 'lost-before'];
    before.apply(add('one'));
    before.apply(add('two'));
    await until(() => faults.length < 4);
    expect(kept.size).toBe(1);
    // The page is loaded anew; the old one goes on to no avail.
    const after = await open();
    after.resume();
    expect(after.read().definition.gates['s_stores']?.lines.map((one) => one.id)).toContain('two');
    await saved(after);
    await saved(before);
    expect(await names()).toEqual(['addLine', 'addLine']);
    expect(kept.size).toBe(0);
    kept.set(`zinc-waiting ${id}`, '{"half');
    const odd = await open();
    odd.resume();
    expect(odd.read().saved).toBe('saved');
  });

  it('fetches what it hears of, once, and nothing that it knows', async () => {
    const store = await open();
    await change(id, bo, 0, { edit: add('other') });
    store.hear(1);
    await until(() => store.read().revision === 1);
    expect(store.read().definition).toEqual((await draftOf(id)).definition);
    store.hear(1);
    store.apply(add('own'));
    await saved(store);
    store.hear(2);
    expect(fetches).toBe(1);
    // Heard while its own edit is on its way: it comes with the answer, or is fetched after it.
    store.apply(add('more'));
    await change(id, bo, 2, { edit: add('last') });
    store.hear(4);
    await until(() => store.read().revision === 4 && store.read().saved === 'saved');
    expect(store.read().definition).toEqual((await draftOf(id)).definition);
    expect(store.read().standing).toEqual(await undoStateIn(id, ada));
  });

  it('takes an edit out again that no longer applies, and tells what came between', async () => {
    const store = await open();
    const { definition } = store.read();
    const lines = definition.gates['s_stores']?.lines ?? [];
    await change(id, bo, 0, { edit: add('other') });
    store.apply({ do: 'follow', gate: 's_stores', lines });
    await saved(store);
    expect(told[0]).toMatch(/bo changed the draft in the meantime/);
    expect(store.read().definition).toEqual((await draftOf(id)).definition);
  });

  it('deletes what would let somebody in only after asking', async () => {
    const all: Line = { id: 'all', who: { kind: 'signed-in' }, what: 'see' };
    const shut: Line = { id: 'shut', who: { kind: 'role', role: 'auditor' }, what: 'block' };
    for (const one of [all, shut])
      await change(id, bo, 0, { edit: { do: 'addLine', gate: 's_stores', line: one, at: 0 } });
    await person(id, 'au@x.example', [{ role: 'auditor' }]);
    const store = await open();
    const item = store.read().definition.roles.find((role) => role.id === 'auditor');
    if (!item) throw new Error('There is no auditor');
    const at = store.read().definition.roles.indexOf(item);
    const remove: Edit = {
      do: 'together',
      edits: [
        { do: 'removeLine', gate: 's_stores', line: shut, at: 0 },
        ...linesOn(store, 'auditor'),
        { do: 'removeItem', list: 'roles', at, item },
      ],
    };
    confirms = false;
    store.apply(remove);
    await saved(store);
    expect(store.read().definition.roles).toContainEqual(item);
    confirms = true;
    store.apply(remove);
    await saved(store);
    expect((await draftOf(id)).definition.roles).not.toContainEqual(item);
  });
});

const linesOn = (store: DraftStore, role: string): Edit[] =>
  Object.entries(store.read().definition.gates).flatMap(([gate, { lines }]) =>
    lines.flatMap((one, at): Edit[] =>
      one.id !== 'shut' && one.who.kind === 'role' && one.who.role === role
        ? [{ do: 'removeLine', gate, line: one, at }]
        : [],
    ),
  );
