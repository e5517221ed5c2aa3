import { cookies } from 'next/headers';
import { cache } from 'react';
import { visit } from './visit';
import type { Visit } from './who-visits';

/** The visit as it is now: for what has changed it in this very request. */
export const visitNow = async (slug: string): Promise<Visit | undefined> => visit(slug, await cookies());

/** The visit that a page is made for, looked up once in its request. */
export const thisVisit = cache(visitNow);
