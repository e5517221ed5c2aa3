import type { Definition } from '@/core/model';

/** "Found in an edit by Jonah Peel, 14 Mar 2026, 10:14 (revision 12)." */
export const sinceInWords = (
  definition: Definition,
  said: string,
  { author, at, revision }: { readonly author: string; readonly at: string; readonly revision: number },
): string => `${said} in an edit by ${author}, ${whenInWords(definition, at)} (revision ${revision}).`;

/** "14 Mar 2026, 10:14", in the application's language and time zone. */
export const whenInWords = ({ language, timeZone }: Definition, at: string): string =>
  new Intl.DateTimeFormat(language, { dateStyle: 'medium', timeStyle: 'short', timeZone }).format(
    new Date(at),
  );

/** "14 Mar 2026". */
export const dayOf = ({ language, timeZone }: Definition, at: string): string =>
  new Intl.DateTimeFormat(language, { dateStyle: 'medium', timeZone }).format(new Date(at));
