import type { Condition } from '@/core/condition';
import type { Gate, Id, Line, What, Who } from '@/core/model';

const everyone: Who = { kind: 'everyone' };
const signedIn: Who = { kind: 'signed-in' };

/** A gate with lines, written as who, what and perhaps when; a text is a role. */
function gate(id: Id, ...lines: (readonly [Who | string, What, Condition?])[]): [Id, Gate] {
  const made = lines.map(([who, what, when], n): Line => ({
    id: `${id}_${n + 1}`,
    who: typeof who === 'string' ? { kind: 'role', role: who } : who,
    what,
    ...(when && { when }),
  }));
  return [id, { lines: made }];
}

const away: Condition = { compare: '=', left: { record: 'item_away' }, right: { value: true } };
const stock: Condition = { compare: '=', left: { session: 'sv_stock' }, right: { value: true } };
const out: Condition = { compare: '=', left: { record: 'loan_status' }, right: { value: 'out' } };
const late: Condition = { hasPrivilege: 'q_late' };

/** Who gets what, as the desk is first released. */
export const GATES: readonly [Id, Gate][] = [
  gate('larkfield', [everyone, 'edit']),
  gate('s_catalogue', [everyone, 'see']),
  gate('s_pieces', ['lender', 'edit']),
  gate('s_piece', ['lender', 'see', { meets: 'c_own' }]),
  gate('h_away', [everyone, 'edit', away]),
  gate('h_home', [everyone, 'edit']),
  gate('area_friends', [signedIn, 'edit']),
  gate('s_evenings', ['friend', 'edit'], [{ kind: 'unit', unit: 'mill-annexe' }, 'at-most-see']),
  gate(
    's_schedule',
    [{ kind: 'privilege', privilege: 'q_schedule' }, 'see'],
    [{ kind: 'role', role: 'registrar', exactly: true }, 'block'],
  ),
  gate('item_lender_email', ['registrar', 'edit'], ['auditor', 'see']),
  gate('b_export_items', ['registrar', 'edit'], ['auditor', 'see']),
  gate('b_bulk_items', ['registrar', 'edit']),
  gate('b_take_stock', [{ kind: 'group', group: 'g_trained' }, 'edit'], ['registrar', 'edit']),
  gate('p_item_lender_email', ['registrar', 'edit'], ['auditor', 'see']),
  gate('b_courier', ['assistant', 'edit', { meets: 'c_hours' }], ['registrar', 'edit', late]),
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
  gate(
    'p_item_store',
    ['volunteer', 'see'],
    ['registrar', 'edit'],
    ['conservator', 'see'],
    ['auditor', 'see'],
    [{ kind: 'group', group: 'g_trained' }, 'edit', stock],
  ),
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
  gate('new_loan_fee', [{ kind: 'privilege', privilege: 'q_fees' }, 'edit']),
  gate('b_save_loan', ['assistant', 'edit']),
  gate('b_approve_loan', ['head', 'edit']),
  gate('b_return_loan', ['assistant', 'edit']),
  gate('b_delete_loan', ['head', 'edit'], [everyone, 'block', out]),
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
