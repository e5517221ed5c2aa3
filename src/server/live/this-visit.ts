import { cookies } from 'next/headers';
import { cache } from 'react';
import { visit, type Visit } from './visit';

/** The visit that a page is made for, looked up once in its request. */
export const thisVisit = cache(async (slug: string): Promise<Visit | undefined> =>
  visit(slug, await cookies()),
);
