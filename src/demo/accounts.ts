/** Accounts that the demo's sign-in pages offer. */
export const DEMO_ACCOUNTS = {
  studio: [
    ['tamsin@larkfield.example', 'owner'],
    ['jonah@larkfield.example', 'editor'],
    ['vera@larkfield.example', 'reviewer'],
  ],
  live: [
    ['wren.tolliver@larkfield.example', 'Volunteer'],
    ['marcus.bell@larkfield.example', 'Assistant'],
    ['priya.raman@larkfield.example', 'Registrar'],
    ['agnes.holloway@larkfield.example', 'Head of collections'],
    ['ines.okafor@larkfield.example', 'Curator'],
    ['samuel.pryce@larkfield.example', 'Auditor'],
    ['delia.marsh@larkfield.example', 'Keeper of accounts'],
    ['harriet.arkwright@larkfield.example', 'Lender'],
    ['rhoda.fenn@larkfield.example', 'Assistant in the annexe'],
  ],
} as const satisfies Record<string, readonly (readonly [string, string])[]>;

/** Where the demo stands. */
export const DEMO_SLUG = 'larkfield';
