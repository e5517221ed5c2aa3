/** Which of the cases ask a route of the released applications, or why none does. */
type Sweeping =
  'pages' | 'reading' | 'writing' | 'pressing' | 'people' | 'unlocks' | { readonly not: string };

/** Every route below `/live/[app]`, as its folder and file: a test holds that there are no others. */
export const ROUTES: Readonly<Record<string, Sweeping>> = {
  '(inside)/[[...address]]/page.tsx': 'pages',
  // Answered with the page.
  '(inside)/@frame/[[...address]]/page.tsx': 'pages',
  '(inside)/account/page.tsx': 'pages',
  'confirm/page.tsx': 'pages',
  'sign-in/page.tsx': 'pages',
  'sign-up/page.tsx': 'pages',
  'api/before-saving/route.ts': 'pages',
  'api/records/[entity]/route.ts': 'reading',
  'api/lists/[list]/export/route.ts': 'reading',
  'api/records/[entity]/[id]/route.ts': 'writing',
  'api/records/[entity]/[id]/actions/[action]/route.ts': 'writing',
  'api/lists/[list]/bulk/route.ts': 'pressing',
  'api/session-values/route.ts': 'pressing',
  'api/people/route.ts': 'people',
  'api/people/[id]/route.ts': 'people',
  'api/people/[id]/link/route.ts': 'people',
  'api/people/[id]/waits/route.ts': 'people',
  'api/account/roles/[role]/route.ts': 'people',
  'api/stand-in/route.ts': 'people',
  'api/unlock/route.ts': 'unlocks',
  'api/account/route.ts': { not: 'Creates accounts and gives the same response to everyone.' },
  'api/account/password/route.ts': { not: 'Needs a link that is sent by email.' },
  'api/notes/route.ts': { not: 'Stores an access request and returns no data.' },
  'api/session/route.ts': { not: 'Needs a password.' },
};
