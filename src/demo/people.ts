import type { Assignment } from '@/core/access';
import type { Values } from '@/core/model';
import { Random } from '@/core/making';

/** Somebody of the demo, before they have an account. */
export interface DemoPerson {
  readonly name: string;
  readonly email: string;
  readonly assignments: readonly Assignment[];
  readonly active: boolean;
  readonly homeUnit: string | null;
  readonly attributes: Values;
}

const FIRST = [
  'Ada',
  'Bram',
  'Celia',
  'Dorota',
  'Edmund',
  'Fenna',
  'Gwil',
  'Hattie',
  'Imran',
  'Jessamy',
  'Kofi',
  'Lowri',
  'Magnus',
  'Nadia',
  'Orla',
  'Piers',
  'Quentin',
  'Rosalind',
  'Sunniva',
  'Tobias',
  'Una',
  'Vikram',
  'Winifred',
  'Xanthe',
  'Yusuf',
  'Zofia',
];
const LAST = [
  'Arkwright',
  'Baptiste',
  'Chowdhury',
  'Dunmore',
  'Eriksen',
  'Farrow',
  'Galloway',
  'Hollis',
  'Ibekwe',
  'Jarrow',
  'Kettering',
  'Lindqvist',
  'Marchbanks',
  'Nowak',
  'Oduya',
  'Penhaligon',
  'Quill',
  'Rahman',
  'Strand',
  'Thistlewood',
  'Umarov',
  'Vance',
  'Whitlock',
  'Yarrow',
];

/** How many have each role; the first of each is named, so that docs and tests can speak of them. */
const CAST: readonly (readonly [string, number, string])[] = [
  ['volunteer', 14, 'Wren Tolliver'],
  ['assistant', 9, 'Marcus Bell'],
  ['registrar', 6, 'Priya Raman'],
  ['head', 2, 'Agnes Holloway'],
  ['conservator', 5, 'Tomas Lindgren'],
  ['curator', 7, 'Ines Okafor'],
  ['lender', 13, 'Harriet Arkwright'],
  ['auditor', 2, 'Samuel Pryce'],
  ['keeper', 2, 'Delia Marsh'],
];

/** About 60 people: one volunteer is switched off, a few have two roles, a unit, or a period. */
export function demoPeople(): DemoPerson[] {
  const random = new Random(1904);
  // Apart, so that what is known of people does not change who they are.
  const facts = new Random(1912);
  const names = new Set(CAST.map(([, , name]) => name));
  const people: DemoPerson[] = [];
  const add = (name: string, assignments: readonly Assignment[], active = true): void => {
    const outside = assignments.some(({ role }) => role === 'lender');
    people.push({
      name,
      email: `${name.toLowerCase().replace(' ', '.')}@larkfield.example`,
      assignments,
      active,
      homeUnit: outside ? null : facts.one(['main-hall', 'main-hall', 'mill-annexe']),
      attributes: outside
        ? {}
        : {
            u_staff: facts.next() < 0.8,
            u_trained: facts.one(['2027-06-30', '2027-01-31', '2026-05-01', null]),
          },
    });
  };
  for (const [role, count, first] of CAST) {
    add(first, [{ role }]);
    for (let n = 1; n < count; n++) {
      let name = '';
      while (name === '' || names.has(name)) name = `${random.one(FIRST)} ${random.one(LAST)}`;
      names.add(name);
      const second =
        role === 'volunteer' && n === 3 ? ['lender'] : role === 'curator' && n === 2 ? ['conservator'] : [];
      add(
        name,
        [role, ...second].map((one) => ({ role: one })),
        !(role === 'volunteer' && n === 5),
      );
    }
  }
  add('Rhoda Fenn', [{ role: 'assistant', unit: 'mill-annexe' }]);
  // Stands in for a registrar for a fortnight.
  add('Col Whitby', [
    { role: 'volunteer' },
    { role: 'registrar', unit: 'main-hall', from: '2026-11-16T00:00:00Z', until: '2027-02-01T00:00:00Z' },
  ]);
  add('Nell Sparrow', [{ role: 'friend' }]);
  return people;
}
