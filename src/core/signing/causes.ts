import { accessOf, type Access } from '../access/deciding/access';
import { compile } from '../access/deciding/compile';
import { sameAnswer, type Answer } from '../access/deciding/level';
import { counts, type Person, type Viewer } from '../access/deciding/viewer';
import { keyedPerson, kindsOf } from '../access/deciding/viewer-key';
import { assignmentInWords, personChangeInWords } from '../edit/comparing/person-words';
import { changesInShort } from '../edit/comparing/in-short';
import { applyUnchecked } from '../edit/edits/apply';
import type { Edit } from '../edit/edits/edit';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import { sameJson } from '../model/same-json';
import type { Steps } from '../steps';
import { type ChangedCell, NOTHING, type AccessSnapshot } from './compare';

/** What made a cell what it is: an edit, a change of the person, or both where neither did it by itself. */
export interface Cause {
  /** The edit that changed it last. */
  readonly edit?: { readonly revision: number; readonly says: string };
  /** What is otherwise with the person, as what follows their name. */
  readonly person?: { readonly says: string };
}

/** An edit of the log. */
export interface Revision {
  readonly revision: number;
  readonly edit: Edit;
}

/**
 * What made cells what they are. Of an edit it is told what it changed, in a sentence or two. `revisions` lead from the
 * one definition to the other, in order; a step is one of them. Throws where one does not apply.
 */
export function* causesOf(
  before: AccessSnapshot,
  after: AccessSnapshot,
  revisions: readonly Revision[],
  cells: readonly ChangedCell[],
): Steps<ReadonlyMap<ChangedCell, Cause>> {
  const causes = new Map<ChangedCell, Cause>();
  const [was, is] = [viewersOf(before), viewersOf(after)];
  const [first, last] = [answers(before.definition), answers(after.definition)];
  /** What is to be found along the edits, with whose roles. */
  const asked: { readonly cell: ChangedCell; readonly viewers: Viewers }[] = [];
  const saysOf = changesOfPeople(before, after);
  for (const cell of cells) {
    const byEdits = sameAnswer(last(cell, was), cell.after);
    const byPerson = sameAnswer(first(cell, is), cell.after);
    if (!byEdits) causes.set(cell, { person: { says: saysOf(cell.viewer) } });
    if (byEdits || !byPerson) asked.push({ cell, viewers: byEdits ? was : is });
  }
  const names = new Map(after.people.map(({ id, name }) => [id, name]));
  const all = (answer: Answers): Answer[] => asked.map(({ cell, viewers }) => answer(cell, viewers));
  let { definition } = before;
  let then = all(first);
  for (const [n, { revision, edit }] of revisions.entries()) {
    const made = applyUnchecked(definition, edit);
    if (!made.ok) throw new Error(`Revision ${revision} cannot be applied: ${made.problems[0]?.message}`);
    const now = all(answers(made.value));
    const changed = asked.filter((_, at) => !sameAnswer(then[at] ?? NOTHING, now[at] ?? NOTHING));
    const says = changed.length > 0 ? changesInShort(definition, made.value, names) : '';
    for (const { cell } of changed) causes.set(cell, { ...causes.get(cell), edit: { revision, says } });
    [definition, then] = [made.value, now];
    yield { done: n + 1, of: revisions.length };
  }
  return causes;
}

/** What is otherwise with people, by their viewers' keys. */
function changesOfPeople(before: AccessSnapshot, after: AccessSnapshot): (key: string) => string {
  const [was, is] = [before, after].map(
    ({ people }) => new Map(people.map((one) => [keyedPerson(one).key, one])),
  );
  return (key) => personSays(before, after, was?.get(key), is?.get(key));
}

/** What is otherwise with a person, as what follows their name; also that a period is over, or has begun. */
export function personSays(
  before: AccessSnapshot,
  after: AccessSnapshot,
  was: Person | undefined,
  is: Person | undefined,
): string {
  const { definition } = after;
  const changed = personChangeInWords(definition, was, is);
  const both =
    (was && is?.assignments.filter((one) => was.assignments.some((old) => sameJson(old, one)))) ?? [];
  const periods = both.flatMap((one): string[] => {
    const [then, now] = [counts(one, before.moment), counts(one, after.moment)];
    return then === now ? [] : [`${now ? 'now has' : 'no longer has'} ${assignmentInWords(definition, one)}`];
  });
  return [changed, ...periods].filter((text) => text !== '').join(', ');
}

/** The viewers of one time: who a key stands for in a definition, undefined where there is nobody. */
interface Viewers {
  readonly of: (key: string, definition: Definition) => Viewer | undefined;
  readonly moment: number;
}
type Answers = (cell: { readonly viewer: string; readonly element: Id }, viewers: Viewers) => Answer;

function viewersOf({ people, moment }: AccessSnapshot): Viewers {
  const persons = new Map(people.map(keyedPerson).map(({ key, viewer }) => [key, viewer]));
  const of = (key: string, definition: Definition): Viewer | undefined =>
    persons.get(key) ?? kindsOf(definition).find((one) => one.key === key)?.viewer;
  return { of, moment };
}

function answers(definition: Definition): Answers {
  const compiled = compile(definition);
  const known = new Map<Viewers, Map<string, Access | undefined>>();
  return ({ viewer, element }, viewers) => {
    const found = compiled.tree.get(element);
    if (!found) return NOTHING;
    const of = known.get(viewers) ?? new Map<string, Access | undefined>();
    known.set(viewers, of);
    if (!of.has(viewer)) {
      const who = viewers.of(viewer, definition);
      of.set(viewer, who && accessOf(compiled, who, { moment: viewers.moment, whenever: true }));
    }
    return of.get(viewer)?.answer(found) ?? NOTHING;
  };
}
