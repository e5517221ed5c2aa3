import { basename } from 'node:path';
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import {
  addressFrom,
  applicationFrom,
  emptyApplication,
  guessSheets,
  type Imported,
  namesOf,
  titled,
  type Sheet,
  type SheetChoice,
} from '@/core/making';
import { database } from '@/server/database/client';
import { applications, builders, outbox, type RecordKind } from '@/server/database/schema';
import { type DataAt, dataOf } from '@/server/data/at';
import { importSheet } from '@/server/data/import';
import { draftOf } from '@/server/drafts/draft';
import { Refused } from '@/server/http/problem';
import { deleteApplication } from '@/server/making/application-lifecycle';
import { copyApplication, definitionFrom, firstRecords, makeApplication } from '@/server/making/make';
import { sheetsFrom, tablesIn } from '@/server/making/postgres';
import { readSheet } from '@/server/making/read-sheet';
import { recordsFile } from '@/server/records/file';
import { buildersOf } from '@/server/studio/builders';
import type { Workplace } from '@/server/studio/builder';
import { wrong, WrongInput } from './failure';
import { readBytes, readDefinitionFile } from './files';
import { applicationCalled, withDatabase } from './store';

/** Does something with the database; what the server refuses is told as what is wrong with what was given. */
const asking = <T>(place: string, work: () => Promise<T>): Promise<T> =>
  withDatabase(async () => {
    try {
      return await work();
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      throw new WrongInput([wrong(place, error.detail, '')]);
    }
  });

/** All applications: their addresses, names, and the release in force. */
export const listed = () =>
  withDatabase(() =>
    database()
      .select({ address: applications.slug, name: applications.name, release: applications.release })
      .from(applications)
      .where(isNull(applications.sweepOf))
      .orderBy(asc(applications.slug)),
  );

interface NewOptions {
  readonly address?: string;
  readonly from?: string;
  readonly csv?: string;
  readonly postgres?: string;
  readonly tables?: string;
  readonly as?: string;
  readonly language: string;
  readonly currency: string;
  readonly zone: string;
}

/** Makes an application; returns its address. What columns hold is guessed, and taken as guessed. */
export const made = (name: string, options: NewOptions): Promise<string> =>
  asking('NEW', async () => {
    const slug = options.address ?? addressFrom(name, 'application');
    const owner = await builderCalled(options.as);
    const { language, currency, zone: timeZone } = options;
    const manners = { name, language, currency, timeZone };
    if (options.from !== undefined) {
      const definition = definitionFrom(readDefinitionFile(options.from), name);
      await makeApplication(owner, { slug, definition, from: 'file' });
    } else if (options.csv !== undefined || options.postgres !== undefined) {
      // Who runs the command says by it that its host may be reached.
      if (options.postgres !== undefined && URL.canParse(options.postgres))
        process.env['POSTGRES_HOSTS'] ||= new URL(options.postgres).hostname;
      const sheets =
        options.postgres === undefined
          ? await Promise.all((options.csv ?? '').split(',').map(sheetFrom))
          : await sheetsFrom(options.postgres, await tablesAsked(options.postgres, options.tables), {
              skipEmpty: options.tables === undefined,
            });
      const today = new Date().toISOString().slice(0, 10);
      const choices = guessSheets(sheets, today).map((columns, s): SheetChoice => ({
        ...namesOf(sheets[s]?.name ?? ''),
        columns: columns.map((one) => ({
          name: titled(one.name) || one.name,
          as: one.as,
          needed: one.needed,
        })),
      }));
      const application = applicationFrom(manners, sheets, choices);
      const records = firstRecords(application, sheets, choices, today);
      const from = options.postgres === undefined ? 'csv' : 'postgres';
      await makeApplication(owner, { slug, definition: application.definition, records, from });
    } else await makeApplication(owner, { slug, definition: emptyApplication(manners), from: 'nothing' });
    return slug;
  });

/** The tables that are named, each by its name or with its schema before it; without any, all that have rows. */
async function tablesAsked(url: string, names: string | undefined) {
  if (names === undefined) return tablesIn(url);
  return names.split(',').map((one) => {
    const [schema, name] = one.includes('.') ? one.split('.') : ['public', one];
    return { schema: schema ?? '', name: name ?? '' };
  });
}

const sheetFrom = (file: string): Promise<Sheet> => readSheet(basename(file), readBytes(file));

/** Copies an application's draft and sample records; returns the address of the copy. */
export const copied = (
  from: string,
  name: string,
  address: string | undefined,
  as?: string,
): Promise<string> =>
  asking('COPY', async () => {
    const applicationId = await applicationCalled(from);
    const slug = address ?? addressFrom(name, 'copy');
    const { definition } = await draftOf(applicationId);
    await copyApplication(await builderCalled(as), { applicationId, definition }, name, slug);
    return slug;
  });

/** Deletes an application with all that is in it, once its name is said. */
export const deleted = (slug: string, name: string, as?: string): Promise<void> =>
  asking('DELETE', async () => deleteApplication(await placeOf(slug, await builderCalled(as)), name));

/** The messages that would be sent to builders, the newest first. */
export const messagesToBuilders = (to?: string) =>
  withDatabase(() => {
    const { at, to: address, subject, link } = outbox;
    return database()
      .select({ at, to: address, subject, link })
      .from(outbox)
      .where(
        and(eq(outbox.forBuilder, true), to === undefined ? undefined : eq(address, to.trim().toLowerCase())),
      )
      .orderBy(desc(at))
      .limit(100);
  });

/** Who builds an application. */
export const buildersFor = (slug: string) =>
  asking('BUILDERS', async () => buildersOf(await placeOf(slug, '')));

/** The records of an entity, named by its id or its plural. */
async function recordsCalled(slug: string, entity: string, kind: RecordKind, as?: string): Promise<DataAt> {
  const workplace = await placeOf(slug, await builderCalled(as));
  const { definition } = await draftOf(workplace.applicationId);
  const found = definition.entities.find(({ id, plural }) => id === entity || plural === entity);
  if (found) return dataOf({ workplace, kind, entity: found.id });
  const there = definition.entities.map(({ plural }) => plural).join(', ');
  throw new WrongInput([
    wrong(
      'ENTITY',
      `There is no entity “${entity}”.`,
      there === '' ? 'The definition has no entities.' : `The entities are ${there}.`,
    ),
  ]);
}

/** The records of an entity as CSV. */
export const exportedRecords = (slug: string, entity: string, kind: RecordKind): Promise<string> =>
  asking('RECORDS', async () => {
    const at = await recordsCalled(slug, entity, kind);
    let text = '';
    for await (const piece of recordsFile({ ...at, kind })) text += piece;
    return text;
  });

/** Takes a CSV file in as records of an entity: all of it, or nothing. */
export const importedRecords = (
  slug: string,
  entity: string,
  file: string,
  kind: RecordKind,
  how: { readonly dry: boolean; readonly leaveOut: boolean; readonly as?: string | undefined },
): Promise<Imported> =>
  asking(file, async () =>
    importSheet(await recordsCalled(slug, entity, kind, how.as), await sheetFrom(file), how),
  );

/** The builder with that address; without one, the first there is. */
async function builderCalled(email: string | undefined): Promise<string> {
  const rows = await database()
    .select({ id: builders.id })
    .from(builders)
    .where(email === undefined ? undefined : eq(builders.email, email))
    .orderBy(asc(builders.createdAt))
    .limit(1);
  const [found] = rows;
  if (found) return found.id;
  throw new WrongInput([
    wrong('--as', `There is no builder ${email ?? ''}.`, 'Give the email address of an existing builder.'),
  ]);
}

/** The application as an owner has it: who may run this may do so. */
async function placeOf(slug: string, builderId: string): Promise<Workplace> {
  const applicationId = await applicationCalled(slug);
  const [row] = await database().select().from(applications).where(eq(applications.id, applicationId));
  return {
    builder: { id: builderId, name: '', token: '' },
    applicationId,
    slug,
    name: row?.name ?? '',
    role: 'owner',
    pins: [],
    live: 'change',
    people: true,
    releases: true,
  };
}
