import { describe, expect, it } from 'vitest';
import { Grants } from '@/core/access/deciding/grants';
import { rightNow, viewerOfPerson, type Person } from '@/core/access/deciding/viewer';
import { tryCondition } from '@/core/access';
import type { Condition } from '@/core/condition/condition';
import { LARKFIELD } from '@/demo/definition';

const [item] = LARKFIELD.entities.filter(({ id }) => id === 'item');
if (!item) throw new Error('The demo has items');
const records = [
  { id: 'one', entity: item, values: { item_condition: 'fragile', item_lender_email: 'ada@x.example' } },
  { id: 'two', entity: item, values: { item_condition: 'sound', item_lender_email: 'ada@x.example' } },
  { id: 'three', entity: item, values: { item_condition: 'sound' } },
];
const person = (id: string, role: string): Person => ({
  id,
  name: id,
  active: true,
  assignments: [{ role }],
  attributes: { email: `${id}@x.example` },
});
const people = [person('ada', 'lender'), person('bo', 'registrar')].map(
  (one) => new Grants(LARKFIELD, viewerOfPerson(one), rightNow()),
);
const fragile: Condition = {
  compare: '=',
  left: { record: 'item_condition' },
  right: { value: 'fragile' },
};
const theirs: Condition = {
  compare: '=',
  left: { record: 'item_lender_email' },
  right: { user: 'email' },
};

describe('trying a condition', () => {
  const scope = { definition: LARKFIELD, entity: item };
  it.each<[string, Condition, number[], number[]]>([
    ['that asks of records', fragile, [0, 1], [0]],
    ['that asks of people', { hasRole: 'registrar' }, [1], [0, 1, 2]],
    ['that asks of both', theirs, [0], [0, 1]],
    ['that asks of both, turned', { all: [fragile, { not: theirs }] }, [1], [0]],
    ['that is never true', { all: [fragile, { not: fragile }] }, [], []],
    ['that asks of what is gone', { hasRole: 'gone' }, [], []],
  ])('tells for whom and on which records it is true: one %s', (_, condition, forPeople, onRecords) => {
    expect(tryCondition(scope, condition, people, records)).toEqual({
      people: forPeople,
      records: onRecords,
    });
  });

  it('tells of people where there are no records to ask', () => {
    expect(tryCondition(scope, { hasRole: 'registrar' }, people, [])).toEqual({ people: [1], records: [] });
    expect(tryCondition(scope, fragile, people, [])).toEqual({ people: [], records: [] });
  });
});
