import fc from 'fast-check';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { accessOf, compile, readAddress, viewerOfRole } from '@/core';
import { type Access, frameAround, type Viewer } from '@/core/access';
import type { Definition } from '@/core/model';
import { Predictor } from '@/core/sweep';
import { LARKFIELD } from '@/demo/definition';
import { liveRecords } from '@/contract/live';
import { answering } from '@/server/http/answering';
import { handle } from '@/server/http/handle';
import { pageAt } from '@/server/live/screen-page';
import { type Answer, versionIn, withVersion } from '@/server/proving/sweep/asker';
import { type Case, casesFor } from '@/server/proving/sweep/cases';
import { Comparing } from '@/server/proving/sweep/compare';
import { type Copy, knownIn, planCopy, putCopy } from '@/server/proving/sweep/copy';
import { keptOtherwise, writeBehind } from '@/server/proving/sweep/kept';
import { RecordsApi } from '@/server/records/api';
import { WholeList } from '@/server/records/lists';
import type { RecordScope } from '@/server/records/read';
import { Draw, drawCircumstances, drawDefinition, drawSomebody } from '../core/arbitrary';
import { runs } from '../runs';
import { application, dropApplications, emptyDatabase, fileOf } from './setting';

beforeAll(emptyDatabase);
beforeEach(dropApplications);

/** What the server's own parts answer to a request, without the web around them. */
async function answered(scope: RecordScope, slug: string, one: Pick<Case, 'asking'>): Promise<Answer> {
  const { seen } = one.asking;
  if (seen !== undefined) {
    const { seen: _, ...asking } = one.asking;
    const version = versionIn(await answered(scope, slug, { asking: { path: seen } }));
    return answered(scope, slug, { asking: withVersion(asking, version) });
  }
  const { asking } = one;
  const { method = 'GET', path, headers = {}, body } = asking;
  const url = new URL(path, 'http://localhost');
  const parts = url.pathname.replace(`/live/${slug}`, '').split('/').slice(1);
  const [, , entity = '', id = '', , action = ''] = parts;
  const api = new RecordsApi(scope, { keep: true });
  const request = new Request(url, {
    method,
    headers: { host: 'localhost', 'content-type': 'application/json', ...headers },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
  const route = async (): Promise<Response> => {
    if (parts[0] !== 'api') {
      const said = await page(scope, parts.join('/'), url.searchParams);
      return new Response(said, { headers: { 'cache-control': 'no-store' } });
    }
    if (parts[1] === 'lists') {
      const kind = id === 'bulk' ? 'bulk' : 'export';
      const list = await WholeList.find(scope, entity, kind, url.searchParams.get('record') ?? undefined);
      return kind === 'bulk'
        ? Response.json(await list.choices({ q: '' }))
        : new Response(await fileOf(list));
    }
    const { act, create, update, delete: remove, read, list: all } = liveRecords;
    const params = Promise.resolve({ entity, id, action, app: slug });
    const here = () => Promise.resolve(api);
    const records = action
      ? answering(act, here, () => api.act(entity, id, action, request))
      : method === 'POST'
        ? answering(create, here, (_, { body: { values } }) => api.create(entity, values))
        : method === 'PATCH'
          ? answering(update, here, (_, { body: { values } }) => api.update(entity, id, request, values))
          : method === 'DELETE'
            ? answering(remove, here, () => api.delete(entity, id, request))
            : id
              ? answering(read, here, () => api.read(entity, id))
              : answering(all, here, () => api.list(entity, url.searchParams));
    return records(request, { params });
  };
  const answer = await handle(route)(request, undefined);
  const told = [...answer.headers].flat().join('\n');
  return { status: answer.status, location: '', headers: told, body: await answer.text() };
}

async function page(scope: RecordScope, address: string, query: URLSearchParams): Promise<string> {
  const { access } = scope;
  const screen = readAddress(access.compiled.tree, address)?.screen;
  const frame = screen && frameAround(access, screen);
  return JSON.stringify([frame, access.compiled.definition.name, await pageAt(scope, address, query)]);
}

/** Those that these parts of the server can answer. */
const isOfRecords = (one: Case): boolean =>
  /\/api\/(records|lists\/[^/]+\/export)/.test(one.asking.path) ||
  ('reads' in one && /\/api\/lists\/[^/]+\/bulk/.test(one.asking.path)) ||
  ('reads' in one && one.predicted.is === 'open' && !one.asking.path.includes('/api/'));

async function surprisesIn(
  copy: Copy,
  access: Access,
  signedOut: boolean,
  some: (cases: Case[]) => Case[] = (cases) => cases,
): Promise<unknown[]> {
  const comparing = new Comparing(copy);
  const records = knownIn(copy);
  const known = { access, records, finder: comparing.marks, signedOut, standsIn: false };
  const predictor = new Predictor({ ...known, people: new Set() });
  const scope: RecordScope = { applicationId: copy.id, kind: 'live', access };
  const found: unknown[] = [];
  const cases = casesFor({
    ...{ copy, access, predictor, records, signedOut },
    whole: false,
    once: (_, __, ___, cases) => cases(),
  }).filter(isOfRecords);
  for (const one of some(cases)) {
    if ('meanwhile' in one && one.meanwhile) await writeBehind(copy, one.meanwhile.record);
    const answer = await answered(scope, copy.slug, one);
    found.push(...comparing.surprises(one, answer, predictor));
    const said = await keptOtherwise(copy, 'does' in one ? one.does : undefined);
    if (said !== undefined) found.push([one.asking, said]);
  }
  return found;
}

async function copyOf(definition: Definition): Promise<Copy> {
  await application(definition);
  const copy = planCopy(definition, []);
  await putCopy(definition.id, copy);
  return copy;
}

describe('what a sweep expects', () => {
  it('is what the server does with the records of any application, for anybody', async () => {
    await fc.assert(
      fc.asyncProperty(fc.gen(), async (value) => {
        await dropApplications();
        const draw = new Draw(value);
        const copy = await copyOf(drawDefinition(draw));
        const viewer: Viewer = drawSomebody(draw);
        const access = accessOf(compile(copy.definition), viewer, drawCircumstances(draw));
        // A few of the requests, so that many applications are tried.
        const some = (cases: Case[]): Case[] => Array.from({ length: 40 }, () => draw.one(cases));
        expect(await surprisesIn(copy, access, viewer.kind === 'signed-out', some)).toEqual([]);
      }),
      { numRuns: runs(30), endOnFailure: true },
    );
  });

  it('is what it does with those of Larkfield', async () => {
    const copy = await copyOf(LARKFIELD);
    for (const role of ['registrar', 'volunteer']) {
      const access = accessOf(compile(copy.definition), viewerOfRole(role), { moment: Date.now() });
      expect((await surprisesIn(copy, access, false)).slice(0, 4)).toEqual([]);
    }
  });
});
