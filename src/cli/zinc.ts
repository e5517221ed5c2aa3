import { Command, CommanderError, Option } from 'commander';
import { amongInWords } from '@/core/edit';
import type { Finding, Rank } from '@/core/findings';
import { findGone, isMoment, ordered } from '@/core/model';
import { toCsv } from '@/server/csv';
import type { made as makes } from './applications';
import { levelsText } from '@/core/expectations';
import { decide, decidedBy, explained, faultsOf, readCases } from './decide';
import { checkExpected } from './expected';
import { EXIT, wrong, WrongInput } from './failure';
import { readDefinitionFile, readText, writeText } from './files';
import { asSarif, effectsIn, findingInWords, findingsOf, plainFinding, RANKS } from './findings';
import { junit } from './junit';
import { reach } from './reach';
import { readWorld, type World } from './world';

/** What works in the database is loaded by the commands that need it: most work on files, and start quicker without. */
const inApplications = () => import('./applications');
const inStore = () => import('./store');
const inSweeps = () => import('./sweep');

const program = new Command('bin/zinc')
  .description(
    'Works with applications, and with definitions that are kept as files: who may see and edit what, and why.',
  )
  .addHelpText(
    'after',
    '\nExit codes: 0 fine; 1 an answer differs from what was expected; 2 what was given cannot be used;\n3 a finding is probably not meant; 4 one lets somebody in.\nThe formats are described in docs/definition.md.',
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
  .description('Lists the applications: address, name, release in force.')
  .option('--json', 'as JSON')
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
    'Makes an application: empty, from a definition file, or from CSV files or tables with their rows as samples.',
  )
  .argument('<name>')
  .option('--address <address>', 'its part of the address; else from its name')
  .addOption(new Option('--from <file>', 'a definition file').conflicts(['csv', 'postgres']))
  .addOption(new Option('--csv <files>', 'CSV files, with commas between them').conflicts('postgres'))
  .option('--postgres <url>', 'a PostgreSQL database that is only read')
  .option('--tables <names>', 'which of its tables, with commas between them; else all')
  .option('--as <email>', 'the builder who owns it; else the first')
  .option('--language <language>', 'in which values are told (BCP 47)', 'en-GB')
  .option('--currency <currency>', 'in which money is told (ISO 4217)', 'EUR')
  .option('--zone <zone>', 'the time zone', 'UTC')
  .action(async (name: string, options: Parameters<typeof makes>[1]) => {
    const { made } = await inApplications();
    print(`Made, at /live/${await made(name, options)}. It is not released yet.`);
  });

program
  .command('copy')
  .description('Copies the draft and the sample records of an application; nobody’s account, nothing live.')
  .argument('<application>', 'its part of the address')
  .argument('<name>', 'of the copy')
  .option('--address <address>', 'of the copy; else from its name')
  .option('--as <email>', 'the builder who owns it; else the first')
  .action(async (slug: string, name: string, options: { address?: string; as?: string }) => {
    const { copied } = await inApplications();
    print(`Copied to /live/${await copied(slug, name, options.address, options.as)}.`);
  });

program
  .command('delete')
  .description('Deletes an application with its releases, people and records. It cannot be taken back.')
  .argument('<application>', 'its part of the address')
  .requiredOption('--name <name>', 'its name, so that it is surely that one')
  .action(async (slug: string, options: { name: string }) => {
    const { deleted } = await inApplications();
    await deleted(slug, options.name);
    print('Deleted.');
  });

program
  .command('builders')
  .description('Lists who builds an application, and as what.')
  .argument('<application>', 'its part of the address')
  .option('--json', 'as JSON')
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
  .option('--json', 'as JSON')
  .action(async (options: { to?: string; json?: boolean }) => {
    const { messagesToBuilders } = await inApplications();
    const all = await messagesToBuilders(options.to);
    if (options.json) return printJson(all);
    for (const { at, to, subject, link } of all)
      print([at.toISOString(), to, subject, link ?? ''].join('\t'));
  });

program
  .command('sweep')
  .description('Has the running server asked for everything as everybody, and tells what came otherwise.')
  .argument('<application>', 'its part of the address')
  .option('--released', 'the release in force, rather than the draft')
  .option('--whole', 'leaves out nothing for being like what somebody else was asked')
  .option('--junit <file>', 'writes a report as JUnit XML')
  .option('--json', 'as JSON')
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
        print(`${surpriseCount} surprises in ${asked} requests as ${viewers} viewers (${state}).`);
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

const records = program.command('records').description('Takes records out of an application, and in.');

records
  .command('export')
  .description('Writes the records of an entity as CSV.')
  .argument('<application>', 'its part of the address')
  .argument('<entity>', 'by its plural, such as Items, or its id')
  .option('--live', 'the live ones, rather than the samples')
  .action(async (slug: string, entity: string, options: { live?: boolean }) => {
    const { exportedRecords } = await inApplications();
    print(await exportedRecords(slug, entity, options.live ? 'live' : 'sample'));
  });

records
  .command('import')
  .description('Takes a CSV file in: all of it, or nothing. Its first line names the fields.')
  .argument('<application>', 'its part of the address')
  .argument('<entity>', 'by its plural, such as Items, or its id')
  .argument('<file>', 'the CSV file')
  .option('--live', 'as live records, rather than samples')
  .option('--dry', 'only say what would come of it')
  .option('--leave-out', 'leave cells empty that do not fit')
  .option('--as <email>', 'the builder who does it; without it, the first there is')
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
  .description("Writes an application's draft as one JSON file, in a steady order.")
  .argument('<application>', 'its part of the address, such as larkfield')
  .option('--released', 'what is released, rather than the draft')
  .option('--out <file>', 'where to write it; without it, to the output')
  .action(async (slug: string, options: { released?: boolean; out?: string }) => {
    const { exported } = await inStore();
    const text = `${JSON.stringify(ordered(await exported(slug, options.released ?? false)), null, 2)}\n`;
    if (options.out === undefined) print(text);
    else writeText(options.out, text);
  });

program
  .command('import')
  .description(
    "Makes a file an application's draft, as one edit that can be undone. A bad file changes nothing.",
  )
  .argument('<application>', 'its part of the address')
  .argument('<file>', 'the definition; - reads the input')
  .option('--confirm <code>', 'what is deleted may let just those in whom the refusal named')
  .option('--as <email>', 'the builder in whose name it is done; else the first who may')
  .action(async (slug: string, file: string, options: { as?: string; confirm?: string }) => {
    const { imported } = await inStore();
    const revision = await imported(slug, readDefinitionFile(file), options.as, options.confirm);
    print(
      revision === undefined
        ? 'Nothing differs.'
        : `Imported as revision ${revision}. It is not released yet.`,
    );
  });

program
  .command('check')
  .description(
    'Says whether a definition is valid, with every error at its place, and what it names that is gone; with --findings, what is probably wrong with it.',
  )
  .argument('<file>')
  .option('--findings', 'what is probably wrong, with the reason and what would mend it')
  .option('--effects', 'of findings, also who would gain and who would lose by what mends them')
  .option('--world <file>', 'people to look for as well, as JSON')
  .addOption(
    new Option('--at-least <rank>', 'findings of this rank and worse')
      .choices(RANKS)
      .default('not-meant')
      .implies({ findings: true }),
  )
  .addOption(
    new Option('--format <format>', 'of findings')
      .choices(['text', 'json', 'sarif'])
      .default('text')
      .implies({ findings: true }),
  )
  .option('--json', 'as JSON')
  .action((file: string, options: Checking) => {
    const definition = readDefinitionFile(file);
    if (options.findings) return checkFindings(file, readWorld(definition, options.world, note), options);
    const gone = findGone(definition);
    if (options.json) return printJson({ valid: true, notes: gone });
    print('It is valid.');
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
  else if (format === 'text' && !json) print('Nothing is found.');
}

interface Asking {
  readonly world?: string;
  readonly json?: boolean;
  readonly at?: string;
}

const momentOf = ({ at }: Asking): number => {
  if (at === undefined) return Date.now();
  if (!isMoment(at))
    throw new WrongInput([wrong('--at', `“${at}” is no moment.`, 'Write it as 2026-03-14T09:30:00Z.')]);
  return Date.parse(at);
};

const asking = (command: Command): Command =>
  command
    .option('--world <file>', 'people, records and session values, as JSON')
    .option('--at <moment>', 'the moment (RFC 3339) where none is given; else now')
    .option('--json', 'as JSON');

asking(program.command('decide'))
  .description(
    'Answers cases: who gets which level of which element, on which record, when, and what decides.',
  )
  .argument('<file>', 'the definition')
  .requiredOption('--cases <file>', 'CSV with the columns viewer, element, record, at, and perhaps expect')
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
  .description('Checks what is expected, as the Prove bench keeps it, and reports each case.')
  .argument('<file>', 'the definition')
  .requiredOption('--cases <file>', 'CSV with the columns viewer, element, record, at, expect, name')
  .option('--junit <file>', 'writes a report as JUnit XML')
  .action((file: string, options: Asking & { cases: string; junit?: string }) => {
    const world = readWorld(readDefinitionFile(file), options.world, note);
    const cases = checkExpected(world, readCases(options.cases), options.cases, momentOf(options));
    if (options.junit !== undefined) writeText(options.junit, junit(options.cases, cases));
    if (options.json) printJson(cases);
    else {
      for (const { name, of, failure, error } of cases)
        if (failure ?? error) print(`${of}: ${name}: ${failure ?? error ?? ''}`);
      const held = cases.filter((one) => (one.failure ?? one.error) === undefined).length;
      print(`${held} of ${cases.length} hold.`);
    }
    if (cases.some(({ error }) => error !== undefined)) process.exitCode = EXIT.wrongInput;
    else if (cases.some(({ failure }) => failure !== undefined)) process.exitCode = EXIT.differs;
  });

asking(program.command('explain'))
  .description('Tells step by step why a viewer has a level on an element.')
  .argument('<file>', 'the definition')
  .requiredOption('--viewer <viewer>', 'signed-out, signed-in, person:ID or role:ID')
  .requiredOption('--element <id>', 'any element; a door and an action are elements too')
  .option('--record <record>', 'entity:ID of a record in the world')
  .action((file: string, options: Asking & { viewer: string; element: string; record?: string }) => {
    const { viewer, element, record } = options;
    const world = readWorld(readDefinitionFile(file), options.world, note);
    const asked = { viewer, element, ...(record !== undefined && { record }) };
    const faults = faultsOf(world, asked, 'The question');
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
        ...step.nearly.map(({ line }) => `${line.id} (not now)`),
      ];
      const { least: low, most: high } = step.result;
      const level = levelsText({ least: low, most: high });
      print(
        `  ${level.padEnd(12)} ${step.element} ${step.gate === 'own' ? `lines: ${lines.join(', ') || 'none that speaks of this viewer'}` : 'follows'}`,
      );
    }
  });

asking(program.command('reach'))
  .description('The whole matrix as CSV: each element, by login states, roles and the people named.')
  .argument('<file>', 'the definition')
  .option('--people <viewers...>', 'person:ID, each a column of its own')
  .option('--numbers', 'beside what depends, how many of the people of a kind get it')
  .action((file: string, options: Asking & { people?: string[]; numbers?: boolean }) => {
    const world = readWorld(readDefinitionFile(file), options.world, note);
    const people = options.people ?? [];
    const unknown = people.filter((key) => !world.viewer(key));
    if (unknown.length > 0)
      throw new WrongInput(
        unknown.map((key) => wrong('--people', `There is no viewer “${key}”.`, 'Write person:ID.')),
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

/** SQLSTATE: what is asked for is not there. */
const NO_TABLE = '42P01';

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
    const [{ isAway }, { told }] = await Promise.all([
      import('@/server/database/client'),
      import('@/server/log'),
    ]);
    const { name, code } = told(error);
    const what = isAway(error)
      ? 'The database cannot be reached. Start it, or set DATABASE_URL.'
      : code === NO_TABLE
        ? 'There is nothing in the database yet. Run bin/start once: it makes what is needed.'
        : `It failed (${code ?? name}). This should not happen: please report what you did.`;
    process.stderr.write(`bin/zinc: ${what}\n`);
  }
}
