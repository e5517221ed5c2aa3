import { Command, CommanderError, Option } from 'commander';
import { amongInWords } from '@/core/edit';
import type { Finding, Rank } from '@/core/findings';
import { findDanglingReferences, isMoment, ordered } from '@/core/model';
import { toCsv } from '@/server/csv';
import type { made as makes } from './applications';
import { levelsText } from '@/core/expectations';
import { decide, decidedBy, explained, faultsOf, readCases } from './decide';
import { checkExpected } from './expected';
import { EXIT, wrong, WrongInput } from './failure';
import { readDefinitionFile, refuseUnknownSettings, readText, writeText } from './files';
import { asSarif, effectsIn, findingInWords, findingsOf, plainFinding, RANKS } from './findings';
import { junit } from './junit';
import { reach } from './reach';
import { readWorld, type World } from './world';

/** What works in the database is loaded by the commands that need it: most work on files, and start quicker without. */
const inApplications = () => import('./applications');
const inStore = () => import('./store');
const inSweeps = () => import('./sweep');

const program = new Command('bin/zinc')
  .description('Works with applications and definition files: who can see and edit what, and why.')
  .addHelpText(
    'after',
    '\nExit codes: 0 success; 1 a result differs from the expectation; 2 invalid input; 3 at least one likely mistake was found; 4 at least one access risk was found. The formats are described in docs/definition.md.',
  )
  .exitOverride()
  .configureOutput({ outputError: (text, write) => write(text) });

const print = (text: string): void => void process.stdout.write(text.endsWith('\n') ? text : `${text}\n`);
/** Something to mind that is no fault. */
const note = (text: string): void => void process.stderr.write(`Note: ${text}\n`);
const printJson = (value: unknown): void => print(JSON.stringify(value, null, 2));

/** A list as JSON, each of its items as soon as there is one. */
function printList<T>(items: Iterable<T>, plain: (item: T) => unknown): void {
  let before = '[';
  for (const item of items) {
    process.stdout.write(`${before}\n${JSON.stringify(plain(item), null, 2).replace(/^/gm, '  ')}`);
    before = ',';
  }
  print(before === '[' ? '[]' : '\n]');
}

program
  .command('list')
  .description('Lists applications with their address, name and live release.')
  .option('--json', 'print JSON')
  .action(async (options: { json?: boolean }) => {
    const { listed } = await inApplications();
    const all = await listed();
    if (options.json) return printJson(all);
    for (const { address, name, release } of all)
      print(`${address}\t${name}\t${release === null ? 'not released' : `release ${release}`}`);
  });

program
  .command('new')
  .description(
    'Creates an application: empty, from a definition file, or from CSV files or database tables (their rows become sample records).',
  )
  .argument('<name>')
  .option('--address <address>', 'address of the application (default: derived from the name)')
  .addOption(new Option('--from <file>', 'definition file').conflicts(['csv', 'postgres']))
  .addOption(new Option('--csv <files>', 'comma-separated list of CSV files').conflicts('postgres'))
  .option('--postgres <url>', 'PostgreSQL connection string (the database is only read)')
  .option('--tables <names>', 'comma-separated list of tables (default: all)')
  .option('--as <email>', 'email address of the owner (default: the first builder)')
  .option('--language <language>', 'language for values (BCP 47)', 'en-GB')
  .option('--currency <currency>', 'currency (ISO 4217)', 'EUR')
  .option('--zone <zone>', 'time zone', 'UTC')
  .action(async (name: string, options: Parameters<typeof makes>[1]) => {
    const { made } = await inApplications();
    print(`Application created at /live/${await made(name, options)}. It has not been released yet.`);
  });

program
  .command('copy')
  .description('Copies the draft and sample records of an application, without accounts or live data.')
  .argument('<application>', 'address of the application')
  .argument('<name>', 'name of the copy')
  .option('--address <address>', 'name address of the copy (default: derived from the name)')
  .option('--as <email>', 'email address of the owner (default: the first builder)')
  .action(async (slug: string, name: string, options: { address?: string; as?: string }) => {
    const { copied } = await inApplications();
    print(`Application copied to /live/${await copied(slug, name, options.address, options.as)}.`);
  });

program
  .command('delete')
  .description('Deletes an application with its releases, people and records. This cannot be undone.')
  .argument('<application>', 'address of the application')
  .requiredOption('--name <name>', 'name of the application, as confirmation')
  .action(async (slug: string, options: { name: string }) => {
    const { deleted } = await inApplications();
    await deleted(slug, options.name);
    print('Application deleted.');
  });

program
  .command('builders')
  .description('Lists the builders of an application and their roles.')
  .argument('<application>', 'address of the application')
  .option('--json', 'print JSON')
  .action(async (slug: string, options: { json?: boolean }) => {
    const { buildersFor } = await inApplications();
    const all = await buildersFor(slug);
    if (options.json) return printJson(all);
    for (const { name, email = '', role } of all) print(`${email}\t${name}\t${role}`);
  });

program
  .command('outbox')
  .description(
    'Lists the messages to builders with their links, which make accounts: for whoever runs the server, while it sends no mail.',
  )
  .option('--to <email>', 'those to one address')
  .option('--json', 'print JSON')
  .action(async (options: { to?: string; json?: boolean }) => {
    const { messagesToBuilders } = await inApplications();
    const all = await messagesToBuilders(options.to);
    if (options.json) return printJson(all);
    for (const { at, to, subject, link } of all)
      print([at.toISOString(), to, subject, link ?? ''].join('\t'));
  });

program
  .command('sweep')
  .description('Sweeps the running server: requests everything as every viewer and lists the mismatches.')
  .argument('<application>', 'address of the application')
  .option('--released', 'use the live release instead of the draft')
  .option('--whole', 'sends every request, even if a similar viewer was already asked')
  .option('--junit <file>', 'write a JUnit XML report to this file')
  .option('--json', 'print JSON')
  .action(
    async (
      slug: string,
      options: { released?: boolean; whole?: boolean; junit?: string; json?: boolean },
    ) => {
      const { swept, sweptAsCases } = await inSweeps();
      const what = { released: options.released ?? false, whole: options.whole ?? false };
      const sweep = await swept(slug, what, ({ viewers, ofViewers, asked, toAsk }) => {
        if (process.stderr.isTTY)
          process.stderr.write(
            `\r${asked} of about ${toAsk} requests, as ${viewers} of ${ofViewers} viewers `,
          );
      });
      if (process.stderr.isTTY) process.stderr.write('\n');
      if (options.junit !== undefined)
        writeText(options.junit, junit(`sweep of ${slug}`, sweptAsCases(sweep)));
      const { state, asked, viewers, surprises, surpriseCount, covered } = sweep;
      if (options.json) printJson({ state, asked, viewers, surpriseCount, surprises, covered });
      else {
        for (const { viewer, request, said, times = 1 } of surprises)
          print(`${viewer}: ${request}: ${said}${times > 1 ? ` (${times} times)` : ''}`);
        print(`${surpriseCount} mismatches in ${asked} requests as ${viewers} viewers (${state}).`);
        if (covered?.leftOut)
          print(
            `${covered.leftOut} more were left out, each like one that was made: the same lines decide it at the same doors.`,
          );
        if (covered?.askedAgain)
          print(
            `${covered.askedAgain} of them were made again, since a connection broke or the server was away.`,
          );
      }
      if (surpriseCount > 0) process.exitCode = EXIT.differs;
      else if (state !== 'done') process.exitCode = EXIT.wrongInput;
    },
  );

const records = program.command('records').description('Exports and imports records.');

records
  .command('export')
  .description('Exports the records of an entity as CSV.')
  .argument('<application>', 'address of the application')
  .argument('<entity>', 'plural name of the entity, such as Items, or its id')
  .option('--live', 'use live records instead of sample records')
  .action(async (slug: string, entity: string, options: { live?: boolean }) => {
    const { exportedRecords } = await inApplications();
    print(await exportedRecords(slug, entity, options.live ? 'live' : 'sample'));
  });

records
  .command('import')
  .description(
    'Imports a CSV file, either completely or not at all. The first line must contain the field names.',
  )
  .argument('<application>', 'address of the application')
  .argument('<entity>', 'plural name of the entity, such as Items, or its id')
  .argument('<file>', 'CSV file')
  .option('--live', 'import as live records instead of sample records')
  .option('--dry', 'only show what would change')
  .option('--leave-out', 'leave invalid cells empty')
  .option('--as <email>', 'email address of the builder who imports (default: the first builder)')
  .action(async (slug: string, entity: string, file: string, options: ImportOptions) => {
    const { live = false, dry = false, leaveOut = false, as } = options;
    const kind = live ? 'live' : 'sample';
    const { importedRecords } = await inApplications();
    const told = await importedRecords(slug, entity, file, kind, { dry, leaveOut, as });
    for (const { line, column, says } of told.wrong) print(`Line ${line}, ${column}: ${says}`);
    print(`${told.added} ${dry ? 'would be ' : ''}added, ${told.changed} changed.`);
  });

interface ImportOptions {
  readonly live?: boolean;
  readonly dry?: boolean;
  readonly leaveOut?: boolean;
  readonly as?: string;
}

program
  .command('export')
  .description('Exports the draft of an application as one JSON file with a stable key order.')
  .argument('<application>', 'address of the application, such as larkfield')
  .option('--released', 'export the live release instead of the draft')
  .option('--out <file>', 'output file (default: standard output)')
  .action(async (slug: string, options: { released?: boolean; out?: string }) => {
    const { exported } = await inStore();
    const text = `${JSON.stringify(ordered(await exported(slug, options.released ?? false)), null, 2)}\n`;
    if (options.out === undefined) print(text);
    else writeText(options.out, text);
  });

program
  .command('import')
  .description(
    'Imports a file as the draft of an application, as one edit that can be undone. An invalid file changes nothing.',
  )
  .argument('<application>', 'address of the application')
  .argument('<file>', 'definition file; - reads standard input')
  .option('--confirm <code>', 'code that confirms the additional access named in the previous error')
  .option('--as <email>', 'email address of the builder (default: the first one who can edit)')
  .action(async (slug: string, file: string, options: { as?: string; confirm?: string }) => {
    const { imported } = await inStore();
    const revision = await imported(slug, readDefinitionFile(file), options.as, options.confirm);
    print(
      revision === undefined
        ? 'No differences. Nothing was imported.'
        : `Imported as revision ${revision}. It has not been released yet.`,
    );
  });

program
  .command('check')
  .description(
    'Checks whether a definition is valid and lists every error with its place and every reference to a deleted item. With --findings, also lists likely problems.',
  )
  .argument('<file>')
  .option('--findings', 'list likely problems with reasons and fixes')
  .option('--effects', 'for each fix, also list who would gain and who would lose access')
  .option('--world <file>', 'JSON file with people to include in the check')
  .addOption(
    new Option('--at-least <rank>', 'only list findings of this rank or higher')
      .choices(RANKS)
      .default('not-meant')
      .implies({ findings: true }),
  )
  .addOption(
    new Option('--format <format>', 'output format of the findings')
      .choices(['text', 'json', 'sarif'])
      .default('text')
      .implies({ findings: true }),
  )
  .option('--json', 'print JSON')
  .action((file: string, options: Checking) => {
    const definition = readDefinitionFile(file);
    refuseUnknownSettings(file, definition);
    if (options.findings) return checkFindings(file, readWorld(definition, options.world, note), options);
    const gone = findDanglingReferences(definition);
    if (options.json) return printJson({ valid: true, notes: gone });
    print('The definition is valid.');
    for (const { place, message, mend } of gone) print(`Note: ${place}: ${message} ${mend}`);
  });

interface Checking {
  readonly findings?: boolean;
  readonly world?: string;
  readonly atLeast: Rank;
  readonly format: 'text' | 'json' | 'sarif';
  readonly json?: boolean;
  readonly effects?: boolean;
}

/** Tells the findings; the exit code says how bad the worst of them is. */
function checkFindings(file: string, world: World, checking: Checking): void {
  const { atLeast, format, json } = checking;
  const { definition } = world;
  const effects = checking.effects ? effectsIn(world) : undefined;
  const ranks = new Set<Rank>();
  /** Each is printed as soon as it is found. */
  function* noted(): Generator<Finding, void> {
    for (const one of findingsOf(world, Date.now(), atLeast)) {
      ranks.add(one.rank);
      yield one;
    }
  }
  if (format === 'sarif') printJson(asSarif(file, readText(file), definition, [...noted()]));
  else if (json || format === 'json') printList(noted(), (one) => plainFinding(one, effects));
  else for (const one of noted()) print(findingInWords(definition, one, effects));
  if (ranks.size > 0) process.exitCode = ranks.has('lets-in') ? EXIT.letsIn : EXIT.notMeant;
  else if (format === 'text' && !json) print('No findings.');
}

interface Asking {
  readonly world?: string;
  readonly json?: boolean;
  readonly at?: string;
}

const momentOf = ({ at }: Asking): number => {
  if (at === undefined) return Date.now();
  if (!isMoment(at))
    throw new WrongInput([
      wrong('--at', `“${at}” is not a valid date and time.`, 'Write it like 2026-03-14T09:30:00Z.'),
    ]);
  return Date.parse(at);
};

const asking = (command: Command): Command =>
  command
    .option('--world <file>', 'JSON file with people, records and session values')
    .option('--at <moment>', 'date and time (RFC 3339) for cases without one (default: now)')
    .option('--json', 'print JSON');

asking(program.command('decide'))
  .description(
    'Decides cases: which level a viewer has on an element, for which record and time, and what decides it.',
  )
  .argument('<file>', 'definition file')
  .requiredOption(
    '--cases <file>',
    'CSV file with the columns viewer, element, record, at and optionally expect',
  )
  .action((file: string, options: Asking & { cases: string }) => {
    const world = readWorld(readDefinitionFile(file), options.world, note);
    const decisions = decide(world, readCases(options.cases), options.cases, momentOf(options));
    const withExpected = decisions.some((one) => one.expect !== undefined);
    const problems = decisions.flatMap((one) => one.problems);
    const rows = decisions.map(({ asExpected, record = '', at = '', expect = '', ...one }) => ({
      viewer: one.viewer,
      element: one.element,
      record,
      at,
      ...(withExpected && { expect, as_expected: expect === '' ? '' : asExpected ? 'yes' : 'no' }),
      least: one.least,
      most: one.most,
      decided_by: one.decided_by,
      ...(problems.length > 0 && { problem: one.problems.map(({ message }) => message).join(' ') }),
    }));
    if (options.json) printJson(rows);
    else print(toCsv([Object.keys(rows[0] ?? {}), ...rows.map((row) => Object.values(row))], 'unix'));
    if (problems.length > 0) throw new WrongInput(problems);
    if (decisions.some((one) => !one.asExpected)) process.exitCode = EXIT.differs;
  });

asking(program.command('test'))
  .description('Checks expectations exported from the Prove bench and reports the result of each.')
  .argument('<file>', 'definition file')
  .requiredOption('--cases <file>', 'CSV with the columns viewer, element, record, at, expect, name')
  .option('--junit <file>', 'write a JUnit XML report to this file')
  .action((file: string, options: Asking & { cases: string; junit?: string }) => {
    const world = readWorld(readDefinitionFile(file), options.world, note);
    const cases = checkExpected(world, readCases(options.cases), options.cases, momentOf(options));
    if (options.junit !== undefined) writeText(options.junit, junit(options.cases, cases));
    if (options.json) printJson(cases);
    else {
      for (const { name, of, failure, error } of cases)
        if (failure ?? error) print(`${of}: ${name}: ${failure ?? error ?? ''}`);
      const held = cases.filter((one) => (one.failure ?? one.error) === undefined).length;
      print(`${held} of ${cases.length} expectations met.`);
    }
    if (cases.some(({ error }) => error !== undefined)) process.exitCode = EXIT.wrongInput;
    else if (cases.some(({ failure }) => failure !== undefined)) process.exitCode = EXIT.differs;
  });

asking(program.command('explain'))
  .description('Explains step by step why a viewer has a level on an element.')
  .argument('<file>', 'definition file')
  .requiredOption('--viewer <viewer>', 'signed-out, signed-in, person:ID or role:ID')
  .requiredOption('--element <id>', 'id of any element, including doors and actions')
  .option('--record <record>', 'record in the world file, as entity:ID')
  .action((file: string, options: Asking & { viewer: string; element: string; record?: string }) => {
    const { viewer, element, record } = options;
    const world = readWorld(readDefinitionFile(file), options.world, note);
    const asked = { viewer, element, ...(record !== undefined && { record }) };
    const faults = faultsOf(world, asked, 'Query');
    if (faults.length > 0) throw new WrongInput(faults);
    const told = explained(world, asked, momentOf(options));
    if (options.json) return printJson(told);
    const { least, most } = told.answer;
    print(
      `${viewer} has ${levelsText({ least, most }).replace('..', ' to ')} of ${element}: ${decidedBy(told.decided)}`,
    );
    for (const step of told.steps) {
      const lines = [
        ...step.lines.map(({ id }) => id),
        ...step.nearly.map(({ line }) => `${line.id} (not at this time)`),
      ];
      const { least: low, most: high } = step.result;
      const level = levelsText({ least: low, most: high });
      print(
        `  ${level.padEnd(12)} ${step.element} ${step.gate === 'own' ? `lines: ${lines.join(', ') || 'none about this viewer'}` : 'follows'}`,
      );
    }
  });

asking(program.command('reach'))
  .description(
    'Exports the whole access matrix as CSV: one row for each element, one column for each login state, role and listed person.',
  )
  .argument('<file>', 'definition file')
  .option('--people <viewers...>', 'people to add as columns, as person:ID')
  .option('--numbers', 'for answers that depend, also show how many people of that kind have access')
  .action((file: string, options: Asking & { people?: string[]; numbers?: boolean }) => {
    const world = readWorld(readDefinitionFile(file), options.world, note);
    const people = options.people ?? [];
    const unknown = people.filter((key) => !world.viewer(key));
    if (unknown.length > 0)
      throw new WrongInput(
        unknown.map((key) => wrong('--people', `There is no viewer “${key}”.`, 'Use person:ID.')),
      );
    const matrix = reach(world, people, momentOf(options), options.numbers);
    if (options.json) return printJson(matrix);
    print(
      toCsv(
        [
          ['element', 'kind', 'name', ...matrix.viewers],
          ...matrix.rows.map((row) => [
            row.element,
            row.kind,
            row.name,
            ...row.cells.map((cell, n) => {
              const among = row.people?.[n];
              return among ? `${cell} (${amongInWords(row.kind, among)})` : cell;
            }),
          ]),
        ],
        'unix',
      ),
    );
  });

// Whoever read the output has gone: there is nobody left to tell.
for (const stream of [process.stdout, process.stderr])
  stream.on('error', () => process.exit(EXIT.wrongInput));

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? EXIT.fine : EXIT.wrongInput;
  else if (error instanceof WrongInput) {
    process.exitCode = EXIT.wrongInput;
    if (process.argv.includes('--json'))
      process.stderr.write(`${JSON.stringify({ problems: error.problems }, null, 2)}\n`);
    else
      for (const { place, message, mend } of error.problems)
        process.stderr.write(`${place}: ${message} ${mend}\n`);
  } else {
    process.exitCode = EXIT.wrongInput;
    const [{ databaseProblem }, { errorForLog }] = await Promise.all([
      import('@/server/database/in-words'),
      import('@/server/log'),
    ]);
    const { name, code } = errorForLog(error);
    const what =
      databaseProblem(error) ?? `An unexpected error occurred (${code ?? name}). Please report what you did.`;
    process.stderr.write(`bin/zinc: ${what}\n`);
  }
}
