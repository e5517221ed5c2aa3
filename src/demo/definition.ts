import type {
  Column,
  Definition,
  Entity,
  EntityField,
  List,
  Part,
  Role,
  Screen,
} from '../core/model/definition';
import type { Gate, Line, What, Who } from '../core/model/gate';
import type { Id } from '../core/model/id';
import type { ValueType } from '../core/model/value';

/** Larkfield Loans Desk: a made-up museum's desk for lending objects, as it is first released. */

const text: ValueType = { kind: 'text' };
const long: ValueType = { kind: 'text', long: true };
const money: ValueType = { kind: 'money' };
const date: ValueType = { kind: 'date' };
const choice = (...names: string[]): ValueType => ({
  kind: 'choice',
  options: names.map((name) => ({ id: name.toLowerCase().replaceAll(' ', '-'), name })),
});
const pointsTo = (entity: Id): ValueType => ({ kind: 'record', entity });

const ROLES: readonly Role[] = [
  { id: 'volunteer', name: 'Volunteer', includes: [] },
  { id: 'assistant', name: 'Assistant', includes: ['volunteer'] },
  { id: 'registrar', name: 'Registrar', includes: ['assistant'], startScreen: 's_loans' },
  { id: 'head', name: 'Head of collections', includes: ['registrar'] },
  { id: 'conservator', name: 'Conservator', includes: [], startScreen: 's_reports' },
  { id: 'curator', name: 'Curator', includes: [] },
  { id: 'lender', name: 'Lender', includes: [] },
  { id: 'auditor', name: 'Auditor', includes: [] },
  { id: 'keeper', name: 'Keeper of accounts', includes: [], startScreen: 's_people' },
];

const field = (id: Id, name: string, type: ValueType, more: Partial<EntityField> = {}): EntityField => ({
  id,
  name,
  type,
  ...more,
});

/** The three actions that every entity has, by its short name. */
const usual = (short: string): Entity['actions'] => [
  { kind: 'create', id: `a_${short}_create`, name: 'Create' },
  { kind: 'update', id: `a_${short}_update`, name: 'Update' },
  { kind: 'delete', id: `a_${short}_delete`, name: 'Delete' },
];

const ENTITIES: readonly Entity[] = [
  {
    id: 'item',
    name: 'Item',
    plural: 'Items',
    labelField: 'item_title',
    fields: [
      field('item_accession', 'Accession no.', text, { required: true }),
      field('item_title', 'Title', text, { required: true }),
      field('item_maker', 'Maker', text),
      field('item_year', 'Year', text),
      field('item_condition', 'Condition', choice('Sound', 'Stable', 'Fragile', 'Under treatment'), {
        initial: 'sound',
      }),
      field('item_value', 'Insurance value', money),
      field('item_store', 'Store and shelf', text),
      field('item_lender', 'Lender', text),
      field('item_branch', 'Branch', choice('Main Hall', 'Mill Annexe'), { required: true }),
      field('item_shown', 'On display', { kind: 'boolean' }, { initial: false }),
      field('item_notes', 'Notes', long),
    ],
    actions: [
      ...usual('item'),
      {
        kind: 'named',
        id: 'a_item_release',
        name: 'Release from store',
        sets: { item_store: null, item_shown: true },
      },
    ],
  },
  {
    id: 'loan',
    name: 'Loan',
    plural: 'Loans',
    labelField: 'loan_number',
    fields: [
      field('loan_number', 'Loan no.', text, { required: true }),
      field('loan_item', 'Item', pointsTo('item'), { required: true }),
      field('loan_borrower', 'Borrower', text, { required: true }),
      field('loan_start', 'Start', date),
      field('loan_due', 'Due back', date),
      field('loan_status', 'Status', choice('Requested', 'Approved', 'Out', 'Returned', 'Refused'), {
        initial: 'requested',
      }),
      field('loan_fee', 'Fee', money),
      field('loan_courier', 'Courier', text),
      field('loan_approver', 'Approved by', text),
    ],
    actions: [
      ...usual('loan'),
      { kind: 'named', id: 'a_loan_approve', name: 'Approve', sets: { loan_status: 'approved' } },
      { kind: 'named', id: 'a_loan_return', name: 'Mark as returned', sets: { loan_status: 'returned' } },
    ],
  },
  {
    id: 'report',
    name: 'Condition report',
    plural: 'Condition reports',
    labelField: 'report_number',
    fields: [
      field('report_number', 'Report no.', text, { required: true }),
      field('report_item', 'Item', pointsTo('item'), { required: true }),
      field('report_date', 'Date', date, { required: true }),
      field('report_grade', 'Grade', choice('A', 'B', 'C', 'D'), { required: true }),
      field('report_findings', 'Findings', long),
      field('report_by', 'By whom', text),
    ],
    actions: usual('report'),
  },
];

/** A field on a screen; `place` keeps apart the ids of the same field on different screens. */
const part = (place: string, id: Id): Part => ({ kind: 'field', id: `${place}_${id}`, field: id });
const parts = (place: string, ...fields: Id[]): Part[] => fields.map((id) => part(place, id));
const columns = (place: string, ...fields: Id[]): Column[] =>
  fields.map((id) => ({ id: `${place}_${id}`, field: id }));
const open = (id: Id, name: string, screen: Id): Part => ({
  kind: 'button',
  id,
  name,
  effect: { do: 'open', screen },
});
const save = (id: Id, name: string): Part => ({ kind: 'button', id, name, effect: { do: 'save' } });
const remove = (id: Id, name: string): Part => ({ kind: 'button', id, name, effect: { do: 'delete' } });
const act = (id: Id, name: string, action: Id): Part => ({
  kind: 'button',
  id,
  name,
  effect: { do: 'action', action },
});
const words = (id: Id, text: string): Part => ({ kind: 'text', id, text });

function list(id: Id, name: string, entity: Id, fields: Id[], more: Partial<List> = {}): Part {
  return { kind: 'list', id, name, entity, columns: columns(id, ...fields), buttons: [], ...more };
}

/** A screen with one list, and perhaps something under it. */
const listScreen = (id: Id, name: string, address: string, listPart: Part, ...more: Part[]): Screen => ({
  id,
  name,
  address,
  sections: [{ id: `${id}_main`, name, parts: [...more, listPart] }],
});

const SCREENS: Readonly<Record<string, readonly Screen[]>> = {
  Catalogue: [
    listScreen(
      's_catalogue',
      'Catalogue',
      'catalogue',
      list('l_catalogue', 'On display', 'item', ['item_title', 'item_maker', 'item_year'], {
        filter: { field: 'item_shown', equals: true },
      }),
      words('t_catalogue', 'Pieces on display at Larkfield, in the Main Hall and the Mill Annexe.'),
    ),
  ],
  Items: [
    listScreen(
      's_items',
      'Item list',
      'items',
      list(
        'l_items',
        'All items',
        'item',
        ['item_accession', 'item_title', 'item_maker', 'item_condition', 'item_value', 'item_branch'],
        {
          opens: 's_item',
        },
      ),
      open('b_new_item', 'New item', 's_new_item'),
    ),
    {
      id: 's_item',
      name: 'Item details',
      address: 'items',
      binds: { entity: 'item', record: 'existing' },
      sections: [
        {
          id: 'n_description',
          name: 'Description',
          parts: parts('p', 'item_title', 'item_maker', 'item_accession', 'item_year', 'item_notes'),
        },
        {
          id: 'n_custody',
          name: 'Custody',
          parts: parts(
            'p',
            'item_value',
            'item_lender',
            'item_store',
            'item_condition',
            'item_branch',
            'item_shown',
          ),
        },
        {
          id: 'n_item_actions',
          name: 'Actions',
          parts: [
            save('b_save_item', 'Save changes'),
            open('b_request_loan', 'Request a loan', 's_new_loan'),
            act('b_release_item', 'Release from store', 'a_item_release'),
            remove('b_delete_item', 'Delete item'),
          ],
        },
      ],
    },
    {
      id: 's_new_item',
      name: 'New item',
      address: 'items/new',
      binds: { entity: 'item', record: 'new' },
      sections: [
        {
          id: 'n_new_item',
          name: 'The piece',
          parts: parts(
            'new',
            'item_accession',
            'item_title',
            'item_maker',
            'item_year',
            'item_value',
            'item_lender',
            'item_store',
            'item_branch',
          ),
        },
        { id: 'n_new_item_actions', name: 'Actions', parts: [save('b_create_item', 'Add item')] },
      ],
    },
  ],
  Loans: [
    listScreen(
      's_loans',
      'Loan list',
      'loans',
      list(
        'l_loans',
        'All loans',
        'loan',
        ['loan_number', 'loan_item', 'loan_borrower', 'loan_due', 'loan_status', 'loan_fee'],
        {
          opens: 's_loan',
        },
      ),
      open('b_new_loan', 'New loan', 's_new_loan'),
    ),
    {
      id: 's_loan',
      name: 'Loan details',
      address: 'loans',
      binds: { entity: 'loan', record: 'existing' },
      sections: [
        {
          id: 'n_loan',
          name: 'Loan',
          parts: parts(
            'p',
            'loan_number',
            'loan_item',
            'loan_borrower',
            'loan_start',
            'loan_due',
            'loan_courier',
          ),
        },
        { id: 'n_terms', name: 'Terms', parts: parts('p', 'loan_status', 'loan_fee', 'loan_approver') },
        {
          id: 'n_loan_actions',
          name: 'Actions',
          parts: [
            save('b_save_loan', 'Save changes'),
            act('b_approve_loan', 'Approve', 'a_loan_approve'),
            act('b_return_loan', 'Mark as returned', 'a_loan_return'),
            remove('b_delete_loan', 'Delete loan'),
          ],
        },
      ],
    },
    {
      id: 's_new_loan',
      name: 'New loan',
      address: 'loans/new',
      binds: { entity: 'loan', record: 'new' },
      sections: [
        {
          id: 'n_new_loan',
          name: 'What is asked for',
          parts: parts(
            'new',
            'loan_number',
            'loan_item',
            'loan_borrower',
            'loan_start',
            'loan_due',
            'loan_fee',
          ),
        },
        { id: 'n_new_loan_actions', name: 'Actions', parts: [save('b_create_loan', 'Add loan')] },
      ],
    },
  ],
  Condition: [
    listScreen(
      's_reports',
      'Condition reports',
      'condition',
      list(
        'l_reports',
        'All reports',
        'report',
        ['report_number', 'report_item', 'report_date', 'report_grade', 'report_by'],
        {
          opens: 's_report',
        },
      ),
      open('b_new_report', 'New report', 's_new_report'),
    ),
    {
      id: 's_report',
      name: 'Condition report',
      address: 'condition',
      binds: { entity: 'report', record: 'existing' },
      sections: [
        {
          id: 'n_report',
          name: 'Report',
          parts: parts(
            'p',
            'report_number',
            'report_item',
            'report_date',
            'report_grade',
            'report_by',
            'report_findings',
          ),
        },
        {
          id: 'n_report_actions',
          name: 'Actions',
          parts: [save('b_save_report', 'Save changes'), remove('b_delete_report', 'Delete report')],
        },
      ],
    },
    {
      id: 's_new_report',
      name: 'New report',
      address: 'condition/new',
      binds: { entity: 'report', record: 'new' },
      sections: [
        {
          id: 'n_new_report',
          name: 'What was found',
          parts: parts(
            'new',
            'report_number',
            'report_item',
            'report_date',
            'report_grade',
            'report_by',
            'report_findings',
          ),
        },
        { id: 'n_new_report_actions', name: 'Actions', parts: [save('b_create_report', 'Add report')] },
      ],
    },
  ],
  Stores: [
    listScreen(
      's_stores',
      'Stores',
      'stores',
      list(
        'l_stores',
        'Where things are',
        'item',
        ['item_store', 'item_accession', 'item_title', 'item_branch'],
        { opens: 's_item' },
      ),
    ),
  ],
  Reports: [
    listScreen(
      's_out',
      'Out on loan',
      'reports/out',
      list(
        'l_out',
        'Out on loan',
        'loan',
        ['loan_due', 'loan_number', 'loan_item', 'loan_borrower', 'loan_courier'],
        {
          filter: { field: 'loan_status', equals: 'out' },
          opens: 's_loan',
        },
      ),
    ),
    listScreen(
      's_fragile',
      'Fragile pieces',
      'reports/fragile',
      list(
        'l_fragile',
        'Fragile pieces',
        'item',
        ['item_accession', 'item_title', 'item_branch', 'item_value'],
        {
          filter: { field: 'item_condition', equals: 'fragile' },
          opens: 's_item',
        },
      ),
    ),
  ],
  People: [
    {
      id: 's_people',
      name: 'People',
      address: 'people',
      sections: [
        {
          id: 'n_people',
          name: 'Accounts at the desk',
          parts: [
            words(
              't_people',
              'To ask for an account, or to have one changed or switched off, write to accounts@larkfield.example. Say which branch, which role, and until when.',
            ),
          ],
        },
      ],
    },
  ],
};

const everyone: Who = { kind: 'everyone' };
const signedIn: Who = { kind: 'signed-in' };

/** A gate with lines, written as pairs of who and what; a text is a role. */
function gate(id: Id, ...lines: (readonly [Who | string, What])[]): [Id, Gate] {
  const made = lines.map(([who, what], n): Line => ({
    id: `${id}_${n + 1}`,
    who: typeof who === 'string' ? { kind: 'role', role: who } : who,
    what,
  }));
  return [id, { lines: made }];
}

const GATES: readonly [Id, Gate][] = [
  gate('larkfield', [everyone, 'edit']),
  gate('s_catalogue', [everyone, 'see']),
  gate('s_items', ['volunteer', 'edit'], ['conservator', 'edit'], ['curator', 'edit'], ['auditor', 'see']),
  gate(
    's_item',
    ['volunteer', 'see'],
    ['assistant', 'edit'],
    ['conservator', 'edit'],
    ['curator', 'edit'],
    ['auditor', 'see'],
  ),
  gate('s_new_item', ['registrar', 'edit']),
  gate('n_description', [signedIn, 'see'], ['assistant', 'edit'], ['curator', 'edit']),
  gate('p_item_accession', [signedIn, 'see'], ['registrar', 'edit']),
  gate('p_item_lender', ['assistant', 'edit'], ['curator', 'see'], ['auditor', 'see']),
  gate('p_item_store', ['volunteer', 'see'], ['registrar', 'edit'], ['conservator', 'see']),
  gate('p_item_condition', [signedIn, 'see'], ['conservator', 'edit'], ['registrar', 'edit']),
  gate('p_item_branch', [signedIn, 'see'], ['registrar', 'edit']),
  gate('p_item_shown', [signedIn, 'see'], ['registrar', 'edit'], ['curator', 'edit']),
  gate('b_save_item', ['assistant', 'edit'], ['conservator', 'edit'], ['curator', 'edit']),
  gate('b_request_loan', ['assistant', 'edit'], ['curator', 'edit']),
  gate('b_release_item', ['registrar', 'edit']),
  gate('b_delete_item', ['head', 'edit']),
  gate('s_loans', ['assistant', 'edit'], ['curator', 'see'], ['auditor', 'see']),
  gate('s_loan', ['assistant', 'edit'], ['curator', 'see'], ['auditor', 'see']),
  gate('s_new_loan', ['assistant', 'edit'], ['curator', 'edit']),
  gate('p_loan_number', [signedIn, 'see'], ['registrar', 'edit']),
  gate('n_terms', ['registrar', 'edit'], ['assistant', 'see'], ['auditor', 'see']),
  gate('p_loan_approver', ['registrar', 'see'], ['auditor', 'see']),
  gate('l_loans_loan_fee', ['registrar', 'see'], ['auditor', 'see']),
  gate('new_loan_fee', ['registrar', 'edit']),
  gate('b_save_loan', ['assistant', 'edit']),
  gate('b_approve_loan', ['head', 'edit']),
  gate('b_return_loan', ['assistant', 'edit']),
  gate('b_delete_loan', ['head', 'edit']),
  gate(
    's_reports',
    ['volunteer', 'see'],
    ['registrar', 'edit'],
    ['conservator', 'edit'],
    ['curator', 'see'],
    ['auditor', 'see'],
  ),
  gate(
    's_report',
    ['volunteer', 'see'],
    ['registrar', 'edit'],
    ['conservator', 'edit'],
    ['curator', 'see'],
    ['auditor', 'see'],
  ),
  gate('s_new_report', ['conservator', 'edit'], ['registrar', 'edit']),
  gate('b_save_report', ['conservator', 'edit'], ['registrar', 'edit']),
  gate('b_delete_report', ['head', 'edit']),
  gate('s_stores', ['volunteer', 'edit'], ['conservator', 'edit'], ['curator', 'see'], ['auditor', 'see']),
  gate('s_out', ['registrar', 'see'], ['auditor', 'see']),
  gate('s_fragile', ['registrar', 'see'], ['conservator', 'see'], ['curator', 'see'], ['auditor', 'see']),
  gate('s_people', ['head', 'see'], ['keeper', 'edit']),
];

export const LARKFIELD: Definition = {
  format: 1,
  id: 'larkfield',
  name: 'Larkfield Loans Desk',
  currency: 'GBP',
  language: 'en-GB',
  newScreens: 'nobody',
  startScreen: 's_items',
  roles: ROLES,
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
};
