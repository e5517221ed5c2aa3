import type { Values } from '@/core/model';
import { demoPeople } from './people';
import { Random } from '@/core/making';

export interface DemoRecord {
  readonly entity: 'item' | 'loan' | 'report';
  readonly id: string;
  readonly values: Values;
}

const WHAT: readonly (readonly [string, string])[] = [
  ['ewer', 'Pottery'],
  ['tea bowl', 'Pottery'],
  ['charger', 'Pottery'],
  ['salt cellar', 'Silver'],
  ['snuffbox', 'Silver'],
  ['tankard', 'Silver'],
  ['sampler', 'Textile'],
  ['quilt', 'Textile'],
  ['banner', 'Textile'],
  ['sea chart', 'Paper'],
  ['ledger', 'Paper'],
  ['broadside', 'Paper'],
  ['mantel clock', 'Clock'],
  ['barometer', 'Instrument'],
  ['sextant', 'Instrument'],
  ['telescope', 'Instrument'],
  ['rocking chair', 'Wood'],
  ['dower chest', 'Wood'],
  ['bobbin stand', 'Wood'],
  ['ship model', 'Wood'],
  ['landscape', 'Painting'],
  ['portrait of a miller', 'Painting'],
  ['still life', 'Painting'],
  ['brass lantern', 'Metal'],
];
const LOOK = [
  'Blue',
  'Small',
  'Gilt',
  'Painted',
  'Chased',
  'Oak',
  'Striped',
  'Engraved',
  'Large',
  'Mourning',
  'Travelling',
  'Unfinished',
  'Green',
  'Twin-handled',
  'Harbour',
  'Winter',
  'Double',
  'Carved',
];
const MAKER = [
  'Unknown, Trent valley',
  'Unknown',
  'J. Whitlock & Sons',
  'Mercy Dunmore',
  'Circle of T. Vance',
  'Larkfield Mill',
  'A. Penhaligon',
  'Marchbanks, Bristol',
  'Sarah Jarrow',
  'After E. Strand',
  'Quill Brothers',
  'Possibly Delft',
];
const BORROWER = [
  'Harbour Museum, Tarn',
  'Ashby Town Hall',
  'Textile House, Corrie',
  'St Brannoc’s School',
  'Fellgate Gallery',
  'Museum of Clocks, Lund',
  'Northmoor University',
  'Wick Lifeboat Trust',
  'Galerie am Anger',
];
const COURIER = ['Own van', 'Carrow & Dale', 'Fenwick Fine Art', 'Collected by borrower', null];
const FINDINGS = [
  'No change since the last report.',
  'Hairline at the foot, stable.',
  'Surface dust; cleaned with a soft brush.',
  'Corrosion at the hinge. Keep below 45% humidity.',
  'Lifting paint at the lower left corner, 4 mm.',
  'Old repair at the rim is yellowing.',
  'Foxing on the verso; keep from light.',
  'Loose veneer at the back. Not to travel before treatment.',
  'Two threads broken near the border.',
];

/** So many of each. */
export interface Amounts {
  readonly items: number;
  readonly loans: number;
  readonly reports: number;
}

export const LIVE_AMOUNTS: Amounts = { items: 300, loans: 200, reports: 400 };
export const SAMPLE_AMOUNTS: Amounts = { items: 60, loans: 40, reports: 60 };

/** The demo's records, the same for the same seed. The first item is always the blue ewer. */
export function demoRecords(seed: number, amounts: Amounts): DemoRecord[] {
  const random = new Random(seed);
  const lenders = demoPeople()
    .filter((one) => one.assignments.some(({ role }) => role === 'lender'))
    .map((one) => one.name);
  const staff = demoPeople()
    .filter((one) => one.assignments.some(({ role }) => ['conservator', 'registrar'].includes(role)))
    .map((one) => one.name);
  const heads = demoPeople()
    .filter((one) => one.assignments.some(({ role }) => role === 'head'))
    .map((one) => one.name);
  const day = (from: number, to: number): string =>
    new Date(Date.UTC(2026, 10, 23) + random.whole(from, to) * 86_400_000).toISOString().slice(0, 10);
  const many = (count: number, make: (n: number) => DemoRecord): DemoRecord[] =>
    Array.from({ length: count }, (_, n) => make(n));
  const items = many(amounts.items, (n) => item(random, n, lenders));
  const loans = many(amounts.loans, (n) => {
    const drawn = random.weighed([
      ['requested', 3],
      ['approved', 3],
      ['out', 5],
      ['returned', 8],
      ['refused', 1],
    ]);
    const status = n === 0 ? 'out' : drawn;
    const start = day(-500, 60);
    const of = random.one(items);
    return {
      entity: 'loan',
      id: random.id(),
      values: {
        loan_number: `LN-${2024 + Math.floor(n / 90)}-${String(n + 1).padStart(3, '0')}`,
        // The blue ewer is out with the first loan, so that its lender has something to see.
        ...itemOf('loan', n === 0 && items[0] ? items[0] : of),
        loan_borrower: random.one(BORROWER),
        loan_start: start,
        loan_due: new Date(Date.parse(start) + random.whole(30, 300) * 86_400_000).toISOString().slice(0, 10),
        loan_status: status,
        loan_fee: random.weighed([
          [null, 2],
          [String(random.whole(4, 90) * 25), 8],
        ]),
        loan_courier: random.one(COURIER),
        loan_approver: status === 'requested' || status === 'refused' ? null : random.one(heads),
      },
    };
  });
  const reports = many(amounts.reports, (n) => ({
    entity: 'report',
    id: random.id(),
    values: {
      report_number: `CR-${String(n + 1).padStart(4, '0')}`,
      ...itemOf('report', random.one(items)),
      report_date: day(-900, -1),
      report_grade: random.weighed([
        ['a', 4],
        ['b', 5],
        ['c', 2],
        ['d', 1],
      ]),
      report_findings: random.one(FINDINGS),
      report_by: random.one(staff),
    },
  }));
  const out = new Set(
    loans.filter(({ values }) => values['loan_status'] === 'out').map(({ values }) => values['loan_item']),
  );
  const away = items.map((one) => ({ ...one, values: { ...one.values, item_away: out.has(one.id) } }));
  return [...away, ...loans, ...reports];
}

/** The item that it is about, and with it the branch. */
const itemOf = (what: 'loan' | 'report', { id, values }: DemoRecord): Values => ({
  [`${what}_item`]: id,
  [`${what}_branch`]: values['item_branch'] ?? null,
});

/** Where a lender can be written to, as their account has it. */
const emailOf = (name: string | null): string | null =>
  name && `${name.toLowerCase().replace(' ', '.')}@larkfield.example`;

function item(random: Random, n: number, lenders: readonly string[]): DemoRecord {
  const [what] = random.one(WHAT);
  const year = random.whole(1660, 1935);
  const stored = random.next() < 0.75;
  const branch = random.weighed([
    ['main-hall', 6],
    ['mill-annexe', 4],
  ]);
  const lender = random.next() < 0.45 ? random.one(lenders) : null;
  const made: Values = {
    item_accession: `LM.${random.whole(1904, 2024)}.${random.whole(1, 240)}`,
    item_title: `${random.one(LOOK)} ${what}`,
    item_maker: random.one(MAKER),
    item_year: random.weighed([
      [`c. ${year - (year % 10)}`, 5],
      [String(year), 3],
      [null, 1],
    ]),
    item_condition: random.weighed([
      ['sound', 5],
      ['stable', 5],
      ['fragile', 2],
      ['under-treatment', 1],
    ]),
    item_value: random.weighed([
      [null, 1],
      [String(random.whole(2, 90) * 200), 8],
      [`${random.whole(90, 9900)}.5`, 2],
    ]),
    item_store: stored
      ? `${branch === 'main-hall' ? 'Cellar' : 'Loft'} ${random.one(['A', 'B', 'C', 'D'])}, shelf ${random.whole(1, 24)}`
      : null,
    item_lender: lender,
    item_lender_email: emailOf(lender),
    item_branch: branch,
    item_shown: !stored,
    item_notes: random.weighed([
      [null, 6],
      ['Gift of the family; no label text without asking them.', 1],
      ['Photographed for the spring leaflet.', 1],
      ['Case needs two people to lift.', 1],
    ]),
  };
  if (n > 0) return { entity: 'item', id: random.id(), values: made };
  const ewer: Values = {
    ...made,
    item_accession: 'LM.1904.12',
    item_title: 'Blue ewer',
    item_maker: 'Unknown, Trent valley',
    item_year: 'c. 1780',
    item_condition: 'stable',
    item_value: '18400',
    item_store: 'Cellar B, shelf 14',
    item_lender: 'Harriet Arkwright',
    item_lender_email: emailOf('Harriet Arkwright'),
    item_branch: 'mill-annexe',
    item_shown: false,
  };
  return { entity: 'item', id: random.id(), values: ewer };
}
