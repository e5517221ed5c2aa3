import type { Entity, EntityField, Id, ValueType } from '@/core/model';

const text: ValueType = { kind: 'text' };
const long: ValueType = { kind: 'text', long: true };
const money: ValueType = { kind: 'money' };
const date: ValueType = { kind: 'date' };
const choice = (...names: string[]): ValueType => ({
  kind: 'choice',
  options: names.map((name) => ({ id: name.toLowerCase().replaceAll(' ', '-'), name })),
});
const pointsTo = (entity: Id): ValueType => ({ kind: 'record', entity });

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

/** What the desk keeps: items, loans, condition reports. */
export const ENTITIES: readonly Entity[] = [
  {
    id: 'item',
    name: 'Item',
    plural: 'Items',
    labelField: 'item_title',
    unitField: 'item_branch',
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
      field('item_lender_email', 'Lender email', text, { neverFollows: true }),
      field('item_branch', 'Branch', { kind: 'unit' }, { required: true }),
      field('item_shown', 'On display', { kind: 'boolean' }, { initial: false }),
      field('item_away', 'On loan', { kind: 'boolean' }, { initial: false }),
      field('item_notes', 'Notes', long),
    ],
    actions: [
      ...usual('item'),
      { kind: 'export', id: 'a_item_export', name: 'Export' },
      { kind: 'bulk', id: 'a_item_bulk', name: 'Bulk edit' },
      {
        kind: 'named',
        id: 'a_item_release',
        name: 'Release from store',
        confirm: 'The piece will leave its shelf and go on display. Continue?',
        sets: { item_store: null, item_shown: true },
      },
    ],
  },
  {
    id: 'loan',
    name: 'Loan',
    plural: 'Loans',
    labelField: 'loan_number',
    unitField: 'loan_branch',
    fields: [
      field('loan_number', 'Loan no.', text, { required: true }),
      field('loan_item', 'Item', pointsTo('item'), { required: true }),
      field('loan_branch', 'Branch', { kind: 'unit' }),
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
      {
        kind: 'named',
        id: 'a_loan_courier',
        name: 'Book the courier',
        sets: { loan_courier: 'Carrow & Dale' },
      },
      { kind: 'named', id: 'a_loan_return', name: 'Mark as returned', sets: { loan_status: 'returned' } },
    ],
  },
  {
    id: 'report',
    name: 'Condition report',
    plural: 'Condition reports',
    labelField: 'report_number',
    unitField: 'report_branch',
    fields: [
      field('report_number', 'Report no.', text, { required: true }),
      field('report_item', 'Item', pointsTo('item'), { required: true }),
      field('report_branch', 'Branch', { kind: 'unit' }),
      field('report_date', 'Date', date, { required: true }),
      field('report_grade', 'Grade', choice('A', 'B', 'C', 'D'), { required: true }),
      field('report_findings', 'Findings', long),
      field('report_by', 'Inspected by', text),
    ],
    actions: usual('report'),
  },
];
