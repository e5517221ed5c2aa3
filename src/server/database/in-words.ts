import { errorForLog } from '../log';
import { isAway } from './client';

/** What is wrong with the database, and how to fix it, by the code that it or the network gave; undefined for any other error. */
export function databaseProblem(error: unknown): string | undefined {
  const { code = '' } = errorForLog(error);
  if (isAway(error)) return 'The database cannot be reached. Start it, or correct DATABASE_URL.';
  return {
    '28P01': 'The database rejected the user or the password in DATABASE_URL.',
    '28000': 'The database rejected the user or the password in DATABASE_URL.',
    '3D000': 'The database named in DATABASE_URL does not exist. Create it first.',
    '42501':
      'The user in DATABASE_URL does not have permission to change tables. Set MIGRATION_URL to a user that does.',
    '42P01': 'The database is empty. Run bin/start once to set it up.',
  }[code];
}
