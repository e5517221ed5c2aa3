import { type Expectation, readLevels } from '@/core/expectations';

/** Name, reason, and of whom what is expected: viewer, element, level. */
type Group = readonly [name: string, reason: string, of: readonly (readonly [string, string, string])[]];

const GROUPS: readonly Group[] = [
  [
    'Insurance value',
    'Lenders’ contracts: insurance values are confidential outside the desk.',
    [
      ['signed-out', 'item_value', 'none'],
      ['signed-in', 'item_value', 'none'],
      ['role:friend', 'item_value', 'none'],
      ['role:keeper', 'item_value', 'none'],
      ['role:lender', 'item_value', 'none..see'],
      ['signed-out', 's_schedule', 'none'],
      ['role:registrar', 's_schedule', 'none'],
      ['role:head', 's_schedule', 'see'],
      ['role:auditor', 's_schedule', 'see'],
    ],
  ],
  [
    'Storage location',
    'After the break-in in 2019, only people who carry pieces may know the store locations.',
    [
      ['signed-out', 'item_store', 'none'],
      ['role:lender', 'item_store', 'none'],
      ['role:friend', 'item_store', 'none'],
      ['role:keeper', 'item_store', 'none'],
      ['signed-out', 's_stores', 'none'],
      ['role:lender', 's_stores', 'none'],
    ],
  ],
  [
    'Ownership',
    'Lenders are promised that no other lender learns their name or address.',
    [
      ['signed-out', 'item_lender', 'none'],
      ['role:lender', 'item_lender', 'none'],
      ['role:lender', 'item_lender_email', 'none'],
      ['role:volunteer', 'item_lender', 'none'],
      ['role:conservator', 'item_lender', 'none'],
      ['role:registrar', 'item_lender_email', 'edit'],
    ],
  ],
  [
    'Loan approval',
    'Standing order 4: the person who creates a loan cannot approve it.',
    [
      ['role:assistant', 'a_loan_approve', 'none'],
      ['role:registrar', 'a_loan_approve', 'none'],
      ['role:curator', 'a_loan_approve', 'none'],
      ['role:head', 'a_loan_approve', 'edit'],
    ],
  ],
  [
    'Deleting loans',
    'Only the head of collections can delete loans, and never while the piece is out.',
    [
      ['role:registrar', 'a_item_delete', 'none'],
      ['role:registrar', 'a_loan_delete', 'none'],
      ['role:registrar', 'a_report_delete', 'none'],
      ['role:head', 'a_loan_delete', 'none..edit'],
    ],
  ],
  [
    'Exporting lists',
    'Only registrars and auditors can export lists of pieces.',
    [
      ['role:volunteer', 'a_item_export', 'none'],
      ['role:assistant', 'a_item_export', 'none'],
      ['role:curator', 'a_item_export', 'none'],
      ['role:auditor', 'a_item_export', 'edit'],
    ],
  ],
  [
    'Auditors change nothing',
    'Auditors can see everything but must not be able to change it.',
    [
      ['role:auditor', 'a_item_update', 'none'],
      ['role:auditor', 'a_loan_update', 'none'],
      ['role:auditor', 'a_report_update', 'none'],
      ['role:auditor', 's_loans', 'see'],
    ],
  ],
  [
    'Managing people',
    'Keepers of accounts assign roles but do not work at the desk.',
    [
      ['role:keeper', 's_people', 'edit'],
      ['role:keeper', 's_items', 'none'],
      ['role:registrar', 's_people', 'none'],
    ],
  ],
];

/** Forty things that the museum counts on; the definition as it is first released keeps all of them. */
export const EXPECTATIONS: readonly Expectation[] = GROUPS.flatMap(([name, reason, of]) =>
  of.map(([viewer, element, level]) => {
    const expect = readLevels(level);
    if (!expect) throw new Error(`${level} is no level`);
    return { name, reason, viewer, element, expect };
  }),
);
