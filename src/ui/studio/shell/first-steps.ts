import { compile, matrixOf } from '@/core';
import { keyedRoles, NONE, rightNow, unpacked } from '@/core/access';
import type { Definition } from '@/core/model';

/** What is known of an application on its way to the first release. */
export interface Progress {
  readonly definition: Definition;
  /** Undefined while it is not known. */
  readonly people: number | undefined;
  /** Findings and broken expectations; undefined while it is not known. */
  readonly findings: number | undefined;
  /** The benches that were opened, and the viewers that were looked as, by their keys. */
  readonly seen: ReadonlySet<string>;
}

export interface Step {
  readonly name: string;
  /** What to do there. */
  readonly about: string;
  readonly bench: 'shape' | 'people' | 'gates' | 'look' | 'prove' | 'release';
  /** The part of the people bench. */
  readonly part?: string;
  readonly done: boolean;
}

/** The name that the first role has until somebody gives it another. */
const FIRST_ROLE = 'Member';

/** The steps to the first release, in the order in which they are best taken, and which of them are done. */
export function stepsOf({ definition, people, findings, seen }: Progress): readonly Step[] {
  const roles = keyedRoles(definition);
  const named = definition.roles.some(({ name }) => name !== FIRST_ROLE);
  return [
    {
      name: 'Check screens and data',
      about: 'See the screens on the Shape bench, and correct fields, names and sample records.',
      bench: 'shape',
      done: seen.has('shape') && definition.areas.some(({ screens }) => screens.length > 0),
    },
    {
      name: 'Name roles',
      about: `Name the roles that people have in your work. “${FIRST_ROLE}” is only a start.`,
      bench: 'people',
      part: 'roles',
      done: named,
    },
    {
      name: 'Add people',
      about: 'Add the people who will use the application, or import them from a CSV file.',
      bench: 'people',
      part: 'people',
      done: people !== undefined && people > 0,
    },
    {
      name: 'Decide who gets which screen',
      about: 'On the Gates bench, give every role its screens.',
      bench: 'gates',
      done: seen.has('gates') && named && everyRoleOpensOne(definition),
    },
    {
      name: 'View as each role',
      about: 'On the Look bench, see the application as each role sees it.',
      bench: 'look',
      done: roles.length > 0 && roles.every(({ key }) => seen.has(key)),
    },
    {
      name: 'Resolve findings',
      about: 'On the Prove bench, correct each finding, or dismiss it with a reason.',
      bench: 'prove',
      done: findings === 0,
    },
    {
      name: 'Release',
      about: 'Review who gains access, and release.',
      bench: 'release',
      done: false,
    },
  ];
}

/** Can each role open at least one screen now? */
function everyRoleOpensOne(definition: Definition): boolean {
  const compiled = compile(definition);
  const viewers = keyedRoles(definition).map(({ viewer }) => viewer);
  const matrix = matrixOf(compiled, viewers, rightNow());
  const { elements } = compiled.tree;
  const screens = elements.filter(({ kind }) => kind === 'screen');
  return viewers.every((_, row) =>
    screens.some(({ number }) => unpacked(matrix[row * elements.length + number] ?? 0).most > NONE),
  );
}
