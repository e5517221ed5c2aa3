import { asked, type Atom, type RecordFacts } from './atom';
import type { Truth } from './condition';
import { allOf, anyOf, type BooleanExpression } from './boolean-expression';

/**
 * A condition is true, false or in doubt. What a rule needs of it is one of these: a line that gives needs it to be
 * true, one that takes away is passed over only where it is false, and under *not* each turns into its opposite.
 * "Not be true" holds where it is false or in doubt.
 */
export type RequiredResult = 'be true' | 'be false' | 'not be true' | 'not be false';

/**
 * What must hold of a record for a viewer to get something: the questions that are left once all that is known of
 * the viewer and the moment has been answered. Mostly none are, and it is just true or false. A formula is true or
 * false on each record, never in doubt: each question says what its own answer must be (`must`).
 */
export type Formula = BooleanExpression<RequiredAtom | Guarded>;

/** A question, and what its answer must be. */
interface RequiredAtom {
  readonly atom: Atom;
  readonly must: RequiredResult;
}

/**
 * What somebody asks of a record themselves, in a filter: read as it is shown to them, and only where the doors
 * of all that it asks for are open to them. The doors are decided on what is stored, and first: how long an
 * answer takes must not tell of a value behind one.
 */
interface Guarded {
  readonly doors: Formula;
  readonly asks: Atom;
  readonly must: RequiredResult;
}

export const all: (...parts: readonly Formula[]) => Formula = allOf<RequiredAtom | Guarded>;
export const any: (...parts: readonly Formula[]) => Formula = anyOf<RequiredAtom | Guarded>;

/** Is the answer as it must be? */
export function satisfies(truth: Truth, must: RequiredResult): boolean {
  switch (must) {
    case 'be true':
      return truth === true;
    case 'be false':
      return truth === false;
    case 'not be true':
      return truth !== true;
    case 'not be false':
      return truth !== false;
  }
}

const inNoUnit = new WeakMap<object, Formula>();

/** The formula for records that have no unit: whether theirs is one of some units is in doubt. */
export function withoutUnits(formula: Formula): Formula {
  if (typeof formula === 'boolean') return formula;
  let found = inNoUnit.get(formula);
  if (found === undefined) {
    if ('all' in formula) found = all(...formula.all.map(withoutUnits));
    else if ('any' in formula) found = any(...formula.any.map(withoutUnits));
    else if ('atom' in formula && formula.atom.is === 'in units') found = satisfies(undefined, formula.must);
    else found = formula;
    inNoUnit.set(formula, found);
  }
  return found;
}

type Holds = (record: RecordFacts) => boolean;

const compiled = new WeakMap<object, Holds>();

/** Does the formula hold for this record? */
export function holds(formula: Formula, record: RecordFacts): boolean {
  return typeof formula === 'boolean' ? formula : functionOf(formula)(record);
}

/** The formula as a function: for asking of many records. */
export const tester = (formula: Formula): Holds =>
  typeof formula === 'boolean' ? () => formula : functionOf(formula);

function functionOf(formula: Exclude<Formula, boolean>): Holds {
  let found = compiled.get(formula);
  if (!found) compiled.set(formula, (found = make(formula)));
  return found;
}

function makeAtom(atom: Atom, must: RequiredResult): Holds {
  const ask = asked(atom);
  // Each its own function rather than one that looks at `must`: this is asked of every record.
  switch (must) {
    case 'be true':
      return (record) => ask(record) === true;
    case 'be false':
      return (record) => ask(record) === false;
    case 'not be true':
      return (record) => ask(record) !== true;
    case 'not be false':
      return (record) => ask(record) !== false;
  }
}

function make(formula: Exclude<Formula, boolean>): Holds {
  if ('atom' in formula) return makeAtom(formula.atom, formula.must);
  if ('asks' in formula) {
    const [open, asks] = [tester(formula.doors), makeAtom(formula.asks, formula.must)];
    return (record) => open(record) && asks(record.shown ?? record);
  }
  const every = 'all' in formula;
  const parts = (every ? formula.all : formula.any).map(tester);
  // Two and three parts are written out: a loop over closures is slower, and this is asked of every record.
  const [a, b, c] = parts;
  if (a && b && parts.length === 2)
    return every ? (record) => a(record) && b(record) : (record) => a(record) || b(record);
  if (a && b && c && parts.length === 3)
    return every
      ? (record) => a(record) && b(record) && c(record)
      : (record) => a(record) || b(record) || c(record);
  return (record) => {
    for (const part of parts) if (part(record) !== every) return !every;
    return every;
  };
}
