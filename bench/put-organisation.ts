import { closeDatabase, database } from '@/server/database/client';
import { builders } from '@/server/database/schema';
import { ORGANISATION } from './organisation';
import { putOrganisation } from './organisation-data';

/**
 * Puts the large organisation into the database of `DATABASE_URL`, for all builders there are:
 * `put-organisation.ts [PEOPLE] [RECORDS]`. All of its people have the password `organisation-pass`.
 */
const [people = ORGANISATION.people, records = ORGANISATION.records] = process.argv.slice(2).map(Number);
const rows = await database().select({ id: builders.id }).from(builders);
await putOrganisation(
  rows.map(({ id }) => id),
  'organisation-pass',
  { people, records },
);
await closeDatabase();
