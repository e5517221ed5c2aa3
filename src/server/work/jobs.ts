import type { EditEffect } from '@/core/edit';
import type { Run } from '../http/progress';
import type { Upload } from '@/contract/body';
import type { DataRequest } from '../data/request';
import type { Workplace } from '../studio/builder';

/** A piece of work for a process beside the server. What goes in and what comes out is copied from process to process. */
export type Job<I, O> = (input: I, run: Run) => Promise<O>;

interface OfApplication {
  readonly applicationId: string;
}
interface ByBuilder extends OfApplication {
  readonly builderId: string;
}
/** Who asks a released application, by the session's token. */
interface OfVisit {
  readonly slug: string;
  readonly token: string | undefined;
}
/** How a builder looks, as the query says it. */
interface OfLook {
  readonly workplace: Workplace;
  readonly query: string;
  /** The path that was asked for, for the audit trail. */
  readonly path: string;
}

const dataFor = async (of: DataRequest) => (await import('../data/at')).dataOf(of);
const lookFor = async ({ workplace, query, path }: OfLook) =>
  (await import('../look/look')).lookOf(workplace, new URLSearchParams(query), path);

/**
 * All that grows with the size of an application, of a file or of a body, and so is not worked out on the server's
 * thread (a test holds that routes do not import these modules). Each is loaded by the process that does it.
 */
export const JOBS = {
  // Drafts and releases
  review: async () => {
    const { review } = await import('../releasing/review');
    return ({ applicationId }: OfApplication, run) => review(applicationId, run);
  },
  breaking: async () => {
    const { breakingOf } = await import('../proving/breaking');
    return ({ applicationId }: OfApplication) => breakingOf(applicationId);
  },
  effect: async () => {
    const { effectOfSent } = await import('../drafts/effect');
    return ({ applicationId, body }: OfApplication & { body: string }, run): Promise<EditEffect> =>
      effectOfSent(applicationId, body, run);
  },
  change: async () => {
    const { changeAsSent } = await import('../drafts/change-as-sent');
    return ({ applicationId, builderId, body }: ByBuilder & { body: string }) =>
      changeAsSent(applicationId, builderId, body);
  },
  release: async () => {
    const { release } = await import('../releasing/release');
    return async (
      {
        applicationId,
        builderId,
        revision,
        note,
        despite,
      }: ByBuilder & { revision: number; note: string; despite: string },
      { tell, signal },
    ) => ({ number: await release(applicationId, builderId, revision, { note, despite }, tell, signal) });
  },
  // Questions
  'who-gets': async () => {
    const { whoGetsNow } = await import('../studio/who-gets');
    return ({ applicationId, element }: OfApplication & { element: string }) =>
      whoGetsNow(applicationId, element);
  },
  why: async () => {
    const { whyAt } = await import('../look/why');
    return async ({
      element,
      address,
      row,
      ...look
    }: OfLook & { element: string; address: string; row: string | undefined }) =>
      whyAt(await lookFor(look), element, address, row);
  },
  turns: async () => {
    const { turnsAt } = await import('../look/why');
    return async (
      {
        element,
        address,
        row,
        level,
        ...look
      }: OfLook & { element: string; address: string; row: string | undefined; level: 0 | 1 | 2 },
      run,
    ) => ({ turns: await turnsAt(await lookFor(look), element, address, row, level, run) });
  },
  try: async () => {
    const { tryAsSent } = await import('../studio/try');
    return ({ applicationId, body }: OfApplication & { body: string }) => tryAsSent(applicationId, body);
  },
  'first-people': async () => {
    const { firstPeople } = await import('../studio/first-people');
    return ({ applicationId, pins }: OfApplication & { pins: readonly string[] }) =>
      firstPeople(applicationId, pins);
  },
  'people-known': async () => {
    const { peopleKnownAsSent } = await import('../studio/people-known');
    return ({ applicationId, body }: OfApplication & { body: string }) =>
      peopleKnownAsSent(applicationId, body);
  },
  'grid-file': async () => {
    const { gridFile } = await import('../studio/grid');
    return ({ workplace }: { workplace: Workplace }) => gridFile(workplace);
  },
  'grid-sheet': async () => {
    const { gridSheet } = await import('../studio/grid');
    return ({ workplace, part }: { workplace: Workplace; part: number }) => gridSheet(workplace, part);
  },
  // Proving
  'add-expectations': async () => {
    const { addAsSent } = await import('../proving/expectations');
    return ({ applicationId, builderId, body }: ByBuilder & { body: string }) =>
      addAsSent(applicationId, builderId, body);
  },
  'expect-what-is': async () => {
    const { expectAsSent } = await import('../proving/expectations');
    return ({ applicationId, builderId, body }: ByBuilder & { body: string }) =>
      expectAsSent(applicationId, builderId, body);
  },
  'import-expectations': async () => {
    const { importExpectations } = await import('../proving/expected-csv');
    return async ({ applicationId, builderId, text }: ByBuilder & { text: string }) => ({
      added: await importExpectations(applicationId, builderId, text),
    });
  },
  'sign-off': async () => {
    const { signOff } = await import('../proving/sign-offs');
    return async ({
      applicationId,
      builderId,
      title,
      revision,
    }: ByBuilder & { title: string; revision: number }) => ({
      id: await signOff(applicationId, builderId, title, revision),
    });
  },
  'sign-off-file': async () => {
    const { contentOf, signOffById } = await import('../proving/sign-offs');
    return async ({ applicationId, id }: OfApplication & { id: string }) =>
      contentOf(await signOffById(applicationId, id));
  },
  'sign-off-sheet': async () => {
    const { signOffSheet } = await import('../proving/sign-off-sheet');
    return ({ applicationId, id, part }: OfApplication & { id: string; part: number }) =>
      signOffSheet(applicationId, id, part);
  },
  'compare-sign-off': async () => {
    const { compareSignOff } = await import('../proving/compare-sign-offs');
    return (
      { applicationId, id, other }: OfApplication & { id: string; other: string | undefined },
      { tell, signal },
    ) => compareSignOff(applicationId, id, other, tell, signal);
  },
  // Files, and other databases
  'look-at-sheets': async () => {
    const { lookAtSheets } = await import('../making/sheets');
    return ({ upload }: { upload: Upload }, { signal }) => lookAtSheets(upload, signal);
  },
  'make-from-sheets': async () => {
    const { makeFromSheets } = await import('../making/sheets');
    return ({ builderId, upload }: { builderId: string; upload: Upload }, run) =>
      makeFromSheets(builderId, upload, run);
  },
  'make-as-sent': async () => {
    const { makeAsSent } = await import('../making/make-as-sent');
    return ({ builderId, body }: { builderId: string; body: string }, run) =>
      makeAsSent(builderId, body, run);
  },
  'import-records': async () => {
    const { importUpload } = await import('../data/import');
    return async ({ upload, ...of }: DataRequest & { upload: Upload }, run) =>
      importUpload(await dataFor(of), upload, run);
  },
  'import-people': async () => {
    const { importPeople } = await import('../studio/people-csv');
    return ({ applicationId, builderId, file, dry }: ByBuilder & { file: Uint8Array; dry: boolean }, run) =>
      importPeople(applicationId, { builderId }, file, dry, run);
  },
  'export-people': async () => {
    const { exportPeople } = await import('../studio/people-csv');
    return ({ applicationId }: OfApplication) => exportPeople(applicationId);
  },
  'export-expectations': async () => {
    const { exportExpectations } = await import('../proving/expected-csv');
    return ({ applicationId }: OfApplication) => exportExpectations(applicationId);
  },
  'list-file': async () => {
    const { listFile, liveScope } = await import('../live/list-file');
    return async ({ slug, token, list, query }: OfVisit & { list: string; query: string }, run) =>
      listFile(await liveScope(slug, token), list, query, run);
  },
  'list-choices': async () => {
    const { listChoices, liveScope } = await import('../live/list-file');
    return async ({ slug, token, list, query }: OfVisit & { list: string; query: string }, run) =>
      listChoices(await (await liveScope(slug, token))(), list, query, run);
  },
  'list-choices-of-look': async () => {
    const { listChoices } = await import('../live/list-file');
    return async ({ list, ...look }: OfLook & { list: string }, run) =>
      listChoices((await lookFor(look)).scope, list, look.query, run);
  },
  'list-file-of-look': async () => {
    const { listFile } = await import('../live/list-file');
    return async ({ list, ...look }: OfLook & { list: string }, run) =>
      listFile(async () => (await lookFor(look)).scope, list, look.query, run);
  },
  'records-file': async () => {
    const { recordsFile } = await import('../records/file');
    return async (of: DataRequest, run) => {
      for await (const part of recordsFile(await dataFor(of))) await run.write(part);
    };
  },
  // Records as data
  'made-up': async () => {
    const { addMadeUp } = await import('../data/made-up');
    return async ({ seed, count, ...of }: DataRequest & { seed: number; count: number }) =>
      addMadeUp(await dataFor(of), seed, count);
  },
  'take-over': async () => {
    const { takeOverSamples } = await import('../data/take-over');
    return async (of: DataRequest) => ({ count: await takeOverSamples(await dataFor(of)) });
  },
  turned: async () => {
    const { turnedAsSent } = await import('../data/turned');
    return async ({ body, ...of }: DataRequest & { body: string }) => ({
      changes: await turnedAsSent(await dataFor(of), body),
    });
  },
} satisfies Record<string, () => Promise<Job<never, unknown>>>;

export type JobName = keyof typeof JOBS;

type JobOf<K extends JobName> = Awaited<ReturnType<(typeof JOBS)[K]>>;
/** What a job is given. */
export type Input<K extends JobName> = Parameters<JobOf<K>>[0];
/** What it makes, as its JSON says it. */
export type Output<K extends JobName> = Awaited<ReturnType<JobOf<K>>>;
