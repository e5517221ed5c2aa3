import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { askedOfPeople } from '@/core/access';
import type { Definition } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { peopleKnown } from '@/server/studio/people-known';
import { whoGetsNow } from '@/server/studio/who-gets';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';
import { person } from './visits';

const definition: Definition = underNewId({
  ...LARKFIELD,
  gates: {
    [LARKFIELD.id]: { lines: [{ id: 'l_all', who: { kind: 'signed-in' }, what: 'edit' }] },
    s_stores: {
      lines: [
        { id: 'l_curator', who: { kind: 'role', role: 'curator' }, what: 'edit' },
        { id: 'l_lender', who: { kind: 'role', role: 'lender' }, what: 'see' },
      ],
    },
  },
});
const ids: Record<string, string> = {};

beforeAll(async () => {
  await emptyDatabase();
  await application(definition);
  for (const [name, roles, more] of [
    ['ada', ['lender'], {}],
    ['bo', ['lender'], {}],
    ['cy', ['lender', 'curator'], {}],
    ['di', ['lender'], { active: false }],
    ['ed', ['lender'], { confirmed: false }],
  ] as const)
    ids[name] = await person(
      definition.id,
      `${name}@x.example`,
      roles.map((role) => ({ role })),
      { name, ...more },
    );
});
afterAll(dropApplications);

describe('what a bench knows of people', () => {
  it('is how many are alike, not who everybody is', async () => {
    const { alike, named } = await peopleKnown(definition.id, definition, askedOfPeople(definition));
    const told = alike.map(({ count, some }) => [count, ...some.map(({ name }) => name)]);
    expect(told.sort()).toEqual([
      [1, 'cy'],
      [3, 'ada', 'bo', 'ed (not activated)'],
    ]);
    expect(named).toEqual([]);
  });

  it('is those whom it asks for by name, also where they are switched off', async () => {
    const asked = askedOfPeople(definition, [ids['di'] ?? '', ids['bo'] ?? '', 'nobody']);
    const { alike, named } = await peopleKnown(definition.id, definition, asked);
    expect(named.map(({ name, active }) => [name, active])).toEqual([
      ['bo', true],
      ['di', false],
    ]);
    expect(alike.map(({ count }) => count)).toEqual([2, 1, 1]);
  });
});

describe('who gets an element', () => {
  it('is told by way in, with names', async () => {
    const { ways, people, of, signedOut } = await whoGetsNow(definition.id, 's_stores');
    expect([people, of, signedOut]).toEqual([4, 4, { least: 0, most: 0 }]);
    expect(
      ways.map(({ line, count, people: these }) => [line.id, count, these.map(({ name }) => name)]),
    ).toEqual([
      ['l_lender', 4, ['ada', 'bo', 'cy', 'ed (not activated)']],
      ['l_curator', 1, ['cy']],
    ]);
  });

  it('is not told of what is not there', async () => {
    await expect(whoGetsNow(definition.id, 's_gone')).rejects.toMatchObject({ status: 404 });
  });
});
