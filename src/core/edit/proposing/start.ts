import { compile } from '../../access/deciding/compile';
import {
  mapSaid,
  rulesFromScreens,
  type Question,
  type ExpressedRule,
  type RuleExpression,
} from '../../access/questions/screen-rules';
import type { Condition } from '../../condition/condition';
import type { Definition } from '../../model/definition';
import type { Line, What, Who } from '../../model/gate';
import { isDangling } from '../../model/dangling-references';
import type { Id } from '../../model/id';
import { sameJson } from '../../model/same-json';
import { isDataDoor } from '../../model/tree';
import { newLine } from '../edits/make';
import { asCondition, isWithin, sayingAsCondition, termsOf, type Term } from './terms';

/**
 * The lines that a follower starts with, so that giving it lines changes nothing yet. One that follows its container
 * starts with "everyone: edit". A door of data follows the screens, and starts with what they say: roles first, and
 * with a condition where roles cannot say it. That keeps everybody's level on every stored record, whoever holds
 * what. Records that are being made are another matter: lines count for them too, and rows that have lines decide
 * about what is made (access.md 8); whom that changes is to be told before.
 */
export function startLines(definition: Definition, gate: Id): Line[] {
  const compiled = compile(definition);
  const element = compiled.tree.get(gate);
  if (!element || !isDataDoor(element)) return [newLine({ kind: 'everyone' }, 'edit')];
  const said = rulesFromScreens(compiled, element);
  if (!said) return [];
  const out = given(definition, { kind: 'signed-out' }, said);
  const signedIn = given(definition, { kind: 'signed-in' }, said);
  const lines = [...signedIn.map((one) => out.find((other) => sameSaid(one, other)) ?? one)];
  const common = lines.filter((one) => out.includes(one));
  return [
    ...common.map((line): Line => ({ ...line, who: { kind: 'everyone' } })),
    ...out.filter((line) => !common.includes(line)),
    ...lines.filter((line) => !common.includes(line)),
    ...[...peopleIn(said)].flatMap((person) => ofPerson(definition, { kind: 'person', person }, said)),
  ];
}

/** Do the two say the same, of those signed out and of those signed in? */
const sameSaid = (a: Line, b: Line): boolean =>
  a.who.kind === 'signed-in' && a.what === b.what && sameJson(a.when, b.when);

/** The saying for those of one login state, or for one person: whom lines speak of is answered as far as it is known. */
function saidOf(definition: Definition, about: Who, saying: RuleExpression): RuleExpression {
  const isSpokenOf = (who: Who): boolean | undefined => {
    switch (who.kind) {
      case 'everyone':
        return true;
      case 'signed-out':
        return about.kind === 'signed-out';
      case 'signed-in':
        return about.kind !== 'signed-out';
      case 'person':
        return about.kind === 'person' && about.person === who.person;
      case 'group':
      case 'privilege':
      case 'role':
      case 'unit':
        return about.kind === 'signed-out' ? false : undefined;
    }
  };
  return mapSaid(saying, (question) => {
    if ('when' in question) return question;
    // Whom it means is in doubt, and doubt is no answer.
    if (isDangling(definition, question.who)) return false;
    const speaks = isSpokenOf(question.who);
    return speaks === undefined ? question : speaks === question.is;
  });
}

/** The lines that give those of a login state what is said of them. */
function given(definition: Definition, about: Who, said: ExpressedRule): Line[] {
  const [see, edit] = [said.see, said.edit].map((one) => saidOf(definition, about, one)) as [
    RuleExpression,
    RuleExpression,
  ];
  const [edits, sees] = [edit, see].map((one) => termsOf(definition, one));
  const editLines = linesFor(about, 'edit', edit, edits);
  const more = sees?.filter((one) => !edits?.some((other) => isWithin(definition, one, other)));
  return [...editLines, ...linesFor(about, 'see', see, more)];
}

const linesFor = (
  about: Who,
  what: What,
  saying: RuleExpression,
  terms: readonly Term[] | undefined,
): Line[] =>
  terms?.map((term) => lineFor(about, what, term)) ?? [newLine(about, what, sayingAsCondition(saying))];

/** A line for one way: it speaks of the first whom the way asks for, and asks the rest as its condition. */
function lineFor(about: Who, what: What, term: Term): Line {
  const kinds = ['role', 'privilege', 'group', 'unit'] as const;
  const named = kinds.flatMap((kind) =>
    term.filter((one) => 'who' in one && one.is && one.who.kind === kind),
  );
  const [first] = named;
  const rest = term.filter((one) => one !== first).map(need);
  const when: Condition | undefined = rest.length > 1 ? { all: rest } : rest[0];
  return newLine(first && 'who' in first ? first.who : about, what, when);
}

function need(question: Question): Condition {
  const condition = asCondition(question);
  if (!condition) throw new Error('A formula without a condition should have been handled earlier');
  return condition;
}

/** The people whom lines name on the way. */
function peopleIn({ see, edit }: ExpressedRule): Set<Id> {
  const found = new Set<Id>();
  for (const saying of [see, edit])
    mapSaid(saying, (question) => {
      if ('who' in question && question.who.kind === 'person') found.add(question.who.person);
      return question;
    });
  return found;
}

/**
 * The lines for a person who is named: what they have beside what anybody with their roles has; and, where that is
 * less, lines that limit them to it.
 */
function ofPerson(definition: Definition, about: Who, said: ExpressedRule): Line[] {
  const lines: Line[] = [];
  for (const [saying, gives, limits] of [
    [said.edit, 'edit', 'at-most-see'],
    [said.see, 'see', 'block'],
  ] as const) {
    const theirs = saidOf(definition, about, saying);
    const anybodys = saidOf(definition, { kind: 'signed-in' }, saying);
    if (sameJson(theirs, anybodys)) continue;
    const [own, all] = [theirs, anybodys].map((one) => termsOf(definition, one));
    const more = own?.filter((one) => !all?.some((other) => isWithin(definition, one, other)));
    lines.push(...linesFor(about, gives, theirs, more).map((line) => named(about, line)));
    if (own && all?.every((one) => own.some((other) => isWithin(definition, one, other)))) continue;
    const spared = sayingAsCondition(theirs);
    lines.push(newLine(about, limits, theirs === false ? undefined : { not: spared }));
  }
  return lines;
}

/** The line for that person, with whom it spoke of as part of its condition. */
function named(about: Who, { who, what, when }: Line): Line {
  const role = sameJson(who, about) ? undefined : asCondition({ who, is: true });
  const parts = [...(role ? [role] : []), ...(when ? [when] : [])];
  return newLine(about, what, parts.length > 1 ? { all: parts } : parts[0]);
}
