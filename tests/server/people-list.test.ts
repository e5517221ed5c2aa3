import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LARKFIELD } from '@/demo/definition';
import { listPeople, readPeopleQuery } from '@/server/people/list';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';
import { person } from './visits';

const definition = underNewId(LARKFIELD);

beforeAll(async () => {
  await emptyDatabase();
  await application(definition);
  const made: readonly (readonly [string, readonly string[], Parameters<typeof person>[3]])[] = [
    ['a@x.example', ['lender'], { name: 'Cleo', homeUnit: 'main-hall' }],
    ['c@x.example', [], { name: 'Ada_', homeUnit: 'mill-annexe', active: false }],
    ['b@x.example', ['lender', 'curator'], { name: 'Bo%', confirmed: false }],
  ];
  for (const [email, roles, more] of made)
    await person(
      definition.id,
      email,
      roles.map((role) => ({ role })),
      more,
    );
});
afterAll(dropApplications);

const names = async (search: string): Promise<string[]> => {
  const found = await listPeople(definition.id, readPeopleQuery(new URLSearchParams(search)));
  expect(found.total).toBe(found.people.length);
  return found.people.map(({ name }) => name);
};

describe('the list of people', () => {
  it.each([
    ['', ['Ada_', 'Bo%', 'Cleo']],
    ['sort=-name', ['Cleo', 'Bo%', 'Ada_']],
    ['sort=email', ['Cleo', 'Bo%', 'Ada_']],
    ['sort=home', ['Cleo', 'Ada_', 'Bo%']],
    // What is no way to sort, though every object has it.
    ['sort=__proto__', ['Ada_', 'Bo%', 'Cleo']],
    ['sort=-constructor', ['Cleo', 'Bo%', 'Ada_']],
    ['q=%25', ['Bo%']],
    ['q=_', ['Ada_']],
    ['q=A@X', ['Cleo']],
    ['role=curator', ['Bo%']],
    ['role=nothing', []],
    ['units=mill-annexe', ['Ada_']],
    ['units=main-hall,mill-annexe', ['Ada_', 'Cleo']],
    ['state=active', ['Cleo']],
    ['state=off', ['Ada_']],
    ['state=unconfirmed', ['Bo%']],
    ['state=__proto__', ['Ada_', 'Bo%', 'Cleo']],
    ['role=lender&state=active', ['Cleo']],
    ['page=0', ['Ada_', 'Bo%', 'Cleo']],
    ['page=1e9', ['Ada_', 'Bo%', 'Cleo']],
  ])('asked with “%s”', async (search, wanted) => {
    expect(await names(search)).toEqual(wanted);
  });
});
