import type { RecordFacts } from '../../condition/atom';
import { all, any, holds, type Formula } from '../../condition/formula';
import type { Algebra, PerLevel } from './lines';
import { EDIT, NONE, SEE, type Answer, type Level } from './level';

/** What it takes of a record to reach each level. */
export type Rule = PerLevel<Formula>;

/** Formulas, joined. */
export const FORMULAS: Algebra<Formula> = { never: false, always: true, both: all, either: any };

/** The rules that do not ask for a record, by level. */
export const ALWAYS: Readonly<Record<Level, Rule>> = [
  { see: false, edit: false },
  { see: true, edit: false },
  { see: true, edit: true },
];

/** The rule of these two formulas: one of `ALWAYS` where no record is asked of, so that rules compare quickly. */
export function ruleOf(see: Formula, edit: Formula): Rule {
  if (see === false) return ALWAYS[NONE];
  if (see === true) {
    if (edit === true) return ALWAYS[EDIT];
    if (edit === false) return ALWAYS[SEE];
  }
  return { see, edit };
}

/** Does it differ from record to record what the rule gives? */
export const dependsOnRecord = ({ see, edit }: Rule): boolean =>
  typeof see !== 'boolean' || typeof edit !== 'boolean';

/** What both give. */
function lowerOfTwo(a: Rule, b: Rule): Rule {
  if (a === b || b === ALWAYS[EDIT] || a === ALWAYS[NONE]) return a;
  if (a === ALWAYS[EDIT] || b === ALWAYS[NONE]) return b;
  return ruleOf(all(a.see, b.see), all(a.edit, b.edit));
}

export function intersectRules(first: Rule, second: Rule, ...more: readonly Rule[]): Rule {
  let rule = lowerOfTwo(first, second);
  for (const one of more) rule = lowerOfTwo(rule, one);
  return rule;
}

/** What either gives. */
export function uniteRules(a: Rule, b: Rule): Rule {
  if (a === b || b === ALWAYS[NONE] || a === ALWAYS[EDIT]) return a;
  if (a === ALWAYS[NONE] || b === ALWAYS[EDIT]) return b;
  return ruleOf(any(a.see, b.see), any(a.edit, b.edit));
}

/** The rule with edit only where `edit` holds too: elsewhere it is for reading. */
export const editOnlyIf = (edit: Formula, rule: Rule): Rule =>
  edit === true || rule.edit === false ? rule : ruleOf(rule.see, all(rule.edit, edit));

/** For what only leads somewhere or reads: see counts as edit. */
export const seeCountsAsEdit = (rule: Rule): Rule =>
  rule.see === rule.edit ? rule : ruleOf(rule.see, rule.see);

/** What the rule gives whatever the record is. */
export const leastOf = (rule: Rule): Rule => ALWAYS[answerOf(rule).least];

/** What the rule could give for some record. */
export const mostOf = (rule: Rule): Rule => ALWAYS[answerOf(rule).most];

/** What stands for any question about a record. */
export const SOME_RECORD: Formula = { atom: { is: 'any record' }, must: 'be true' };

/** The rule decided without a record: on every record what some record could give. */
export function withoutRecord(rule: Rule): Rule {
  const decided = (formula: Formula): Formula => (typeof formula === 'boolean' ? formula : SOME_RECORD);
  return ruleOf(decided(rule.see), decided(rule.edit));
}

export function levelOn(rule: Rule, record: RecordFacts): Level {
  return holds(rule.edit, record) ? EDIT : holds(rule.see, record) ? SEE : NONE;
}

const KNOWN: Readonly<Record<Level, Answer>> = [
  { least: NONE, most: NONE },
  { least: SEE, most: SEE },
  { least: EDIT, most: EDIT },
];

export function answerOf(rule: Rule): Answer {
  if (rule === ALWAYS[EDIT]) return KNOWN[EDIT];
  if (rule === ALWAYS[NONE]) return KNOWN[NONE];
  if (rule === ALWAYS[SEE]) return KNOWN[SEE];
  return {
    least: rule.edit === true ? EDIT : rule.see === true ? SEE : NONE,
    most: rule.edit !== false ? EDIT : rule.see !== false ? SEE : NONE,
  };
}
