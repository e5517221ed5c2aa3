import { accessOf, compile, parse } from '@/core';
import { type KnownRecord, rightNow } from '@/core/access';
import { bind, tester } from '@/core/condition';
import type { Values } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { demoRecords, LIVE_AMOUNTS } from '@/demo/records';
import { median, type Measure } from './measure';

const TIMES = 1_000_000;
const TEXT =
  'record.branch = "Mill Annexe" and record.insurance_value >= 500 and not (record.condition = "Fragile") ' +
  'and (record.lender_email = user.email or record.title contains "ewer" or record.on_display = true)';

/** A condition with six comparisons: parsed, checked and asked a million times, against a function by hand. */
export function measureConditions(): Measure[] {
  const entity = LARKFIELD.entities.find((one) => one.id === 'item');
  if (!entity) throw new Error('The demo has no items');
  const records = demoRecords(1, LIVE_AMOUNTS)
    .filter((one) => one.entity === 'item')
    .map(({ id, values }): KnownRecord => ({ id, entity, values }));
  const email = 'harriet.arkwright@larkfield.example';
  const access = accessOf(
    compile(LARKFIELD),
    { kind: 'signed-in', assignments: [], attributes: { email } },
    rightNow(),
  );
  const scope = { definition: LARKFIELD, entity };
  const count = (test: (record: KnownRecord) => boolean): number => {
    let hits = 0;
    for (let n = 0; n < TIMES; n++) if (test(records[n % records.length] as KnownRecord)) hits++;
    return hits;
  };
  let found = [0, 0];
  const ours = (): void => {
    const parsed = parse(scope, TEXT);
    if (!parsed.ok) throw new Error(parsed.problem.message);
    const test = tester(bind(access.held.facts, scope, parsed.value, 'be true'));
    found = [count(test), found[1] ?? 0];
  };
  const byHand = (): void => {
    found = [found[0] ?? 0, count(({ values }) => plain(values, email))];
  };
  const [a = 0, b = 1] = median([ours, byHand], 5);
  if (found[0] !== found[1]) throw new Error(`The two do not agree: ${found.join(', ')}`);
  return [
    {
      name: 'a condition of six comparisons, a million times',
      ours: a,
      against: b,
      unit: 'ms',
      ratio: a / b,
      most: 5,
    },
  ];
}

function plain(values: Values, email: string): boolean {
  const value = values['item_value'];
  if (values['item_branch'] !== 'mill-annexe') return false;
  if (typeof value !== 'string' || Number(value) < 500) return false;
  if (typeof values['item_condition'] !== 'string' || values['item_condition'] === 'fragile') return false;
  const title = values['item_title'];
  return (
    values['item_lender_email'] === email ||
    (typeof title === 'string' && title.includes('ewer')) ||
    values['item_shown'] === true
  );
}
