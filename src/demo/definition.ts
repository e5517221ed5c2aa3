import type { Definition, Role } from '../core/model/definition';
import { ENTITIES } from './entities';
import { GATES } from './gates';
import { SCREENS } from './screens';

const ROLES: readonly Role[] = [
  { id: 'volunteer', name: 'Volunteer', includes: [], privileges: [] },
  { id: 'assistant', name: 'Assistant', includes: ['volunteer'], privileges: [] },
  { id: 'registrar', name: 'Registrar', includes: ['assistant'], privileges: [], startScreen: 's_loans' },
  { id: 'head', name: 'Head of collections', includes: ['registrar'], privileges: [] },
  { id: 'conservator', name: 'Conservator', includes: [], privileges: [], startScreen: 's_reports' },
  { id: 'curator', name: 'Curator', includes: [], privileges: [] },
  { id: 'lender', name: 'Lender', includes: [], privileges: [] },
  { id: 'auditor', name: 'Auditor', includes: [], privileges: [] },
  { id: 'keeper', name: 'Keeper of accounts', includes: [], privileges: [], startScreen: 's_people' },
];

/** Larkfield Loans Desk: a made-up museum's desk for lending objects, as it is first released. */
export const LARKFIELD: Definition = {
  format: 2,
  id: 'larkfield',
  name: 'Larkfield Loans Desk',
  currency: 'GBP',
  language: 'en-GB',
  timeZone: 'Europe/London',
  newScreens: 'nobody',
  signUp: false,
  startScreen: 's_items',
  roles: ROLES,
  privileges: [],
  units: [],
  attributes: [],
  groups: [],
  conditions: [],
  sessionValues: [],
  entities: ENTITIES,
  areas: Object.entries(SCREENS).map(([name, screens]) => ({
    id: `area_${name.toLowerCase()}`,
    name,
    screens,
  })),
  menu: {
    id: 'menu',
    items: [
      { id: 'm_catalogue', name: 'Catalogue', screen: 's_catalogue', items: [] },
      { id: 'm_items', name: 'Items', screen: 's_items', items: [] },
      { id: 'm_loans', name: 'Loans', screen: 's_loans', items: [] },
      { id: 'm_condition', name: 'Condition', screen: 's_reports', items: [] },
      { id: 'm_stores', name: 'Stores', screen: 's_stores', items: [] },
      {
        id: 'm_reports',
        name: 'Reports',
        items: [
          { id: 'm_out', name: 'Out on loan', screen: 's_out', items: [] },
          { id: 'm_fragile', name: 'Fragile pieces', screen: 's_fragile', items: [] },
        ],
      },
      { id: 'm_people', name: 'People', screen: 's_people', items: [] },
    ],
  },
  gates: Object.fromEntries(GATES),
  closed: {},
};
