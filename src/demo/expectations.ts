import { type Expectation, readLevels } from '@/core/expectations';

/** Name, reason, and of whom what is expected: viewer, element, level. */
type Group = readonly [name: string, reason: string, of: readonly (readonly [string, string, string])[]];

const GROUPS: readonly Group[] = [
  [
    'What a piece is insured for',
    'The lenders’ contracts: nobody outside the desk learns a value.',
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
    'Where a piece stands',
    'After the break-in of 2019: the stores are known to those who carry pieces.',
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
    'Who owns what',
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
    'A loan is approved by the head',
    'Standing orders, 4: whoever makes a loan does not approve it.',
    [
      ['role:assistant', 'a_loan_approve', 'none'],
      ['role:registrar', 'a_loan_approve', 'none'],
      ['role:curator', 'a_loan_approve', 'none'],
      ['role:head', 'a_loan_approve', 'edit'],
    ],
  ],
  [
    'What is deleted',
    'Only the head deletes, and never a loan that is out.',
    [
      ['role:registrar', 'a_item_delete', 'none'],
      ['role:registrar', 'a_loan_delete', 'none'],
      ['role:registrar', 'a_report_delete', 'none'],
      ['role:head', 'a_loan_delete', 'none..edit'],
    ],
  ],
  [
    'Taking lists out',
    'Lists of pieces leave the house with registrars and auditors only.',
    [
      ['role:volunteer', 'a_item_export', 'none'],
      ['role:assistant', 'a_item_export', 'none'],
      ['role:curator', 'a_item_export', 'none'],
      ['role:auditor', 'a_item_export', 'edit'],
    ],
  ],
  [
    'Auditors change nothing',
    'They look at everything that is counted, and touch none of it.',
    [
      ['role:auditor', 'a_item_update', 'none'],
      ['role:auditor', 'a_loan_update', 'none'],
      ['role:auditor', 'a_report_update', 'none'],
      ['role:auditor', 's_loans', 'see'],
    ],
  ],
  [
    'Looking after people',
    'The keepers of accounts hand out roles; they have no part in the desk.',
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
