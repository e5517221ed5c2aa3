import type { Column, Id, List, Part, Screen } from '@/core/model';

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

/** The desk's screens, by area. */
export const SCREENS: Readonly<Record<string, readonly Screen[]>> = {
  Catalogue: [
    listScreen(
      's_catalogue',
      'Catalogue',
      'catalogue',
      list('l_catalogue', 'On display', 'item', ['item_title', 'item_maker', 'item_year'], {
        filter: { compare: '=', left: { record: 'item_shown' }, right: { value: true } },
      }),
      words('t_catalogue', 'Pieces on display at Larkfield, in the Main Hall and the Mill Annexe.'),
    ),
  ],
  Lenders: [
    {
      id: 's_pieces',
      name: 'Your pieces',
      address: 'pieces',
      sections: [
        {
          id: 'n_pieces',
          name: 'Your pieces',
          parts: [
            words('t_pieces', 'The pieces Larkfield keeps for you, and where they are on loan.'),
            list('l_pieces', 'Pieces', 'item', ['item_title', 'item_maker', 'item_condition', 'item_away'], {
              filter: { meets: 'c_own' },
              opens: 's_piece',
            }),
            list(
              'l_piece_loans',
              'Loans of your pieces',
              'loan',
              ['loan_item', 'loan_borrower', 'loan_due'],
              {
                filter: {
                  all: [
                    {
                      compare: '=',
                      left: { record: 'item_lender_email', through: 'loan_item' },
                      right: { user: 'email' },
                    },
                    { compare: '=', left: { record: 'loan_status' }, right: { value: 'out' } },
                  ],
                },
              },
            ),
          ],
        },
      ],
    },
    {
      id: 's_piece',
      name: 'Your piece',
      address: 'pieces',
      binds: { entity: 'item', record: 'existing' },
      sections: [
        { id: 'n_piece', name: 'The piece', parts: parts('own', 'item_title', 'item_maker', 'item_year') },
      ],
      faces: [
        {
          id: 'h_away',
          name: 'On loan',
          sections: [
            {
              id: 'n_away',
              name: 'On loan',
              parts: [
                ...parts('away', 'item_condition', 'item_value'),
                words(
                  't_away',
                  'The piece is insured for this value while it is away. Please tell us before the value changes.',
                ),
              ],
            },
          ],
        },
        {
          id: 'h_home',
          name: 'At Larkfield',
          sections: [
            { id: 'n_home', name: 'At Larkfield', parts: parts('home', 'item_condition', 'item_shown') },
          ],
        },
      ],
    },
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
      { kind: 'button', id: 'b_export_items', name: 'Export', effect: { do: 'export', list: 'l_items' } },
      { kind: 'button', id: 'b_bulk_items', name: 'Bulk edit', effect: { do: 'bulk', list: 'l_items' } },
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
            'item_lender_email',
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
            'item_lender_email',
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
            'loan_branch',
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
            act('b_courier', 'Book the courier', 'a_loan_courier'),
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
          name: 'Request details',
          parts: parts(
            'new',
            'loan_number',
            'loan_item',
            'loan_branch',
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
            'report_branch',
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
          name: 'Findings',
          parts: parts(
            'new',
            'report_number',
            'report_item',
            'report_branch',
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
        'Storage locations',
        'item',
        ['item_store', 'item_accession', 'item_title', 'item_branch'],
        { opens: 's_item' },
      ),
      {
        kind: 'button',
        id: 'b_take_stock',
        name: 'Start taking stock',
        effect: { do: 'set-session', value: 'sv_stock', to: true },
      },
    ),
  ],
  Reports: [
    listScreen(
      's_schedule',
      'Insurance schedule',
      'reports/schedule',
      list('l_schedule', 'Most valuable first', 'item', ['item_accession', 'item_title', 'item_value'], {
        filter: { compare: '>=', left: { record: 'item_value' }, right: { value: '10000' } },
      }),
    ),
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
          filter: { compare: '=', left: { record: 'loan_status' }, right: { value: 'out' } },
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
          filter: { compare: '=', left: { record: 'item_condition' }, right: { value: 'fragile' } },
          opens: 's_item',
        },
      ),
    ),
  ],
  Friends: [
    {
      id: 's_evenings',
      name: 'Evenings',
      address: 'evenings',
      sections: [
        {
          id: 'n_evenings',
          name: 'Evenings',
          parts: [
            words(
              't_evenings',
              'The next evening for Friends is on the first Thursday of the month, at seven.',
            ),
          ],
        },
      ],
    },
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
            { kind: 'people', id: 'w_people', name: 'People' },
            words(
              't_people',
              'To request, change or disable an account, email accounts@larkfield.example. State the branch, the role and the end date.',
            ),
          ],
        },
      ],
    },
  ],
};
