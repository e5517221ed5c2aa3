import type { Definition, Role } from '@/core/model';
import { ENTITIES } from './entities';
import { GATES } from './gates';
import { SCREENS } from './screens';

const handsOut = ['volunteer', 'assistant', 'registrar', 'lender', 'friend'].map((role) => ({
  role,
  notHeld: true,
}));

const ROLES: readonly Role[] = [
  { id: 'volunteer', name: 'Volunteer', includes: [], privileges: [], standInFull: true },
  { id: 'assistant', name: 'Assistant', includes: ['volunteer'], privileges: [] },
  {
    id: 'registrar',
    name: 'Registrar',
    description: 'Handles incoming and outgoing loans.',
    includes: ['assistant'],
    privileges: ['q_fees', 'q_late'],
    startScreen: 's_loans',
  },
  {
    id: 'head',
    name: 'Head of collections',
    includes: ['registrar'],
    privileges: ['q_unlock', 'q_schedule', 'q_stand_in'],
  },
  { id: 'conservator', name: 'Conservator', includes: [], privileges: ['q_late'], startScreen: 's_reports' },
  { id: 'curator', name: 'Curator', includes: [], privileges: [] },
  {
    id: 'lender',
    name: 'Lender',
    description: 'Owns pieces kept at Larkfield and can see only those.',
    includes: [],
    privileges: [],
    givenToNew: true,
    startScreen: 's_pieces',
  },
  { id: 'auditor', name: 'Auditor', includes: [], privileges: ['q_schedule'] },
  {
    id: 'keeper',
    name: 'Keeper of accounts',
    includes: [],
    privileges: [],
    startScreen: 's_people',
    handsOut,
  },
  {
    id: 'friend',
    name: 'Friend of Larkfield',
    description: 'Attends the evening events. Anyone with an account can join.',
    includes: [],
    privileges: [],
    joinable: true,
  },
];

const PRIVILEGES: Definition['privileges'] = [
  {
    id: 'qg_money',
    name: 'Money',
    privileges: [
      { id: 'q_fees', name: 'Set fees' },
      { id: 'q_schedule', name: 'Read the insurance schedule' },
    ],
  },
  {
    id: 'qg_desk',
    name: 'At the desk',
    privileges: [
      { id: 'q_late', name: 'Work after hours' },
      { id: 'q_unlock', name: 'Unlock for others' },
      { id: 'q_stand_in', name: 'Act as other people' },
    ],
  },
];

const UNITS: Definition['units'] = [
  {
    id: 'larkfield-all',
    name: 'Larkfield',
    units: [
      { id: 'main-hall', name: 'Main Hall', units: [] },
      { id: 'mill-annexe', name: 'Mill Annexe', units: [] },
    ],
  },
];

const ATTRIBUTES: Definition['attributes'] = [
  { id: 'u_staff', name: 'Staff', type: { kind: 'boolean' } },
  { id: 'u_trained', name: 'Trained until', type: { kind: 'date' } },
];

const GROUPS: Definition['groups'] = [
  {
    id: 'g_annexe',
    name: 'Active staff of the annexe',
    condition: {
      all: [
        { inUnit: { user: 'home_unit' }, unit: { value: 'mill-annexe' } },
        { compare: '=', left: { user: 'u_staff' }, right: { value: true } },
      ],
    },
  },
  {
    id: 'g_trained',
    name: 'Trained to handle',
    condition: { compare: '>=', left: { user: 'u_trained' }, right: { clock: 'today' } },
  },
];

const CONDITIONS: Definition['conditions'] = [
  {
    id: 'c_hours',
    name: 'Opening hours',
    condition: {
      all: [
        { not: { oneOf: { clock: 'weekday' }, values: ['saturday', 'sunday'] } },
        { compare: '>=', left: { clock: 'time' }, right: { value: '09:00' } },
        { compare: '<', left: { clock: 'time' }, right: { value: '17:30' } },
      ],
    },
  },
  {
    id: 'c_own',
    name: 'Own piece',
    entity: 'item',
    condition: { compare: '=', left: { record: 'item_lender_email' }, right: { user: 'email' } },
  },
  {
    id: 'c_yearly',
    name: 'Month of the yearly check',
    entity: 'report',
    condition: { call: 'same_month', with: [{ record: 'report_date' }, { clock: 'today' }] },
  },
];

/** Larkfield Loans Desk: a made-up museum's desk for lending objects, as it is first released. */
export const LARKFIELD: Definition = {
  format: 3,
  id: 'larkfield',
  name: 'Larkfield Loans Desk',
  currency: 'GBP',
  language: 'en-GB',
  timeZone: 'Europe/London',
  newScreens: 'nobody',
  signUp: true,
  unlock: { privilege: 'q_unlock', minutes: 15 },
  standIn: { privilege: 'q_stand_in', minutes: 30, changes: false },
  startScreen: 's_items',
  roles: ROLES,
  privileges: PRIVILEGES,
  units: UNITS,
  attributes: ATTRIBUTES,
  groups: GROUPS,
  conditions: CONDITIONS,
  sessionValues: [{ id: 'sv_stock', name: 'Taking stock', type: { kind: 'boolean' }, minutes: 240 }],
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
      { id: 'm_pieces', name: 'Your pieces', screen: 's_pieces', items: [] },
      { id: 'm_items', name: 'Items', screen: 's_items', items: [] },
      { id: 'm_loans', name: 'Loans', screen: 's_loans', items: [] },
      { id: 'm_condition', name: 'Condition', screen: 's_reports', items: [] },
      { id: 'm_stores', name: 'Stores', screen: 's_stores', items: [] },
      {
        id: 'm_reports',
        name: 'Reports',
        items: [
          { id: 'm_out', name: 'Out on loan', screen: 's_out', items: [] },
          { id: 'm_schedule', name: 'Insurance schedule', screen: 's_schedule', items: [] },
          { id: 'm_fragile', name: 'Fragile pieces', screen: 's_fragile', items: [] },
        ],
      },
      { id: 'm_evenings', name: 'Evenings', screen: 's_evenings', items: [] },
      { id: 'm_people', name: 'People', screen: 's_people', items: [] },
    ],
  },
  gates: Object.fromEntries(GATES),
  closed: {
    s_out: {
      show: 'refused',
      text: 'For information about pieces on loan, ask the registrars at the desk in the Main Hall.',
    },
    s_fragile: { show: 'sent', screen: 's_catalogue' },
    s_schedule: { show: 'secret' },
    p_loan_approver: { show: 'locked' },
    l_loans_loan_fee: { show: 'locked' },
    b_courier: {
      show: 'explained',
      text: 'Couriers can be booked on weekdays from 9:00 to 17:30 by loan desk staff.',
    },
    m_evenings: {
      show: 'explained',
      text: 'The evening events are for Friends of Larkfield. You can join on your account page.',
    },
  },
};
