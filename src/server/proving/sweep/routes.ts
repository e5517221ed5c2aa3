/** How a route of the released applications is swept, or why it is not. */
type Sweeping =
  'page' | 'records' | 'writes' | 'export' | 'bulk' | 'session-values' | 'people' | { readonly not: string };

/** Every route below `/live/[app]`, as its folder and file: a test holds that there are no others. */
export const ROUTES: Readonly<Record<string, Sweeping>> = {
  '(inside)/[[...address]]/page.tsx': 'page',
  // Answered with the page.
  '(inside)/@frame/[[...address]]/page.tsx': 'page',
  '(inside)/account/page.tsx': { not: 'It tells people of themselves alone.' },
  'confirm/page.tsx': { not: 'It takes a link that is sent by mail.' },
  'sign-in/page.tsx': { not: 'It is the same for everybody.' },
  'sign-up/page.tsx': { not: 'It is the same for everybody.' },
  'api/records/[entity]/route.ts': 'records',
  'api/records/[entity]/[id]/route.ts': 'records',
  'api/records/[entity]/[id]/actions/[action]/route.ts': 'writes',
  'api/lists/[list]/export/route.ts': 'export',
  'api/lists/[list]/bulk/route.ts': 'bulk',
  'api/before-saving/route.ts': {
    not: 'It is not asked yet: it tells how a form would be with other values.',
  },
  'api/session-values/route.ts': 'session-values',
  'api/people/route.ts': 'people',
  'api/people/[id]/route.ts': { not: 'It is not asked yet: it changes people, not records.' },
  'api/people/[id]/link/route.ts': { not: 'It is not asked yet: it changes people, not records.' },
  'api/people/[id]/waits/route.ts': { not: 'It is not asked yet: it changes people, not records.' },
  'api/account/route.ts': { not: 'It opens accounts, and says the same whoever asks.' },
  'api/account/password/route.ts': { not: 'It takes a link that is sent by mail.' },
  'api/account/roles/[role]/route.ts': { not: 'Joining changes who one is; findings tell of it.' },
  'api/notes/route.ts': { not: 'It keeps a note and sends nothing.' },
  'api/session/route.ts': { not: 'It takes a password.' },
  'api/stand-in/route.ts': { not: 'It begins to stand in; who does is asked as.' },
  'api/unlock/route.ts': { not: 'It takes the password of somebody else.' },
};
