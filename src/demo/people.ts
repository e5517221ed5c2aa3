import { Random } from './random';

/** Somebody of the demo, before they have an account. */
export interface DemoPerson {
  readonly name: string;
  readonly email: string;
  readonly roles: readonly string[];
  readonly active: boolean;
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

/** About 60 people: one volunteer is switched off, a few have two roles. */
export function demoPeople(): DemoPerson[] {
  const random = new Random(1904);
  const names = new Set(CAST.map(([, , name]) => name));
  const people: DemoPerson[] = [];
  const add = (name: string, roles: readonly string[], active = true): void => {
    people.push({ name, email: `${name.toLowerCase().replace(' ', '.')}@larkfield.example`, roles, active });
  };
  for (const [role, count, first] of CAST) {
    add(first, [role]);
    for (let n = 1; n < count; n++) {
      let name = '';
      while (name === '' || names.has(name)) name = `${random.one(FIRST)} ${random.one(LAST)}`;
      names.add(name);
      const second =
        role === 'volunteer' && n === 3 ? ['lender'] : role === 'curator' && n === 2 ? ['conservator'] : [];
      add(name, [role, ...second], !(role === 'volunteer' && n === 5));
    }
  }
  return people;
}
