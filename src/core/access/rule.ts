import type { RecordFacts } from '../condition/atom';
import { all, any, holds, type Formula } from '../condition/formula';
import { EDIT, NONE, SEE, type Answer, type Level } from './level';

/** What it takes of a record to reach each level. What reaches edit reaches see. */
export interface Rule {
  readonly see: Formula;
  readonly edit: Formula;
}

/** The rules that do not ask for a record, by level. */
export const ALWAYS: Readonly<Record<Level, Rule>> = [
  { see: false, edit: false },
  { see: true, edit: false },
  { see: true, edit: true },
];

export const lower = (...rules: readonly Rule[]): Rule => ({
  see: all(...rules.map((rule) => rule.see)),
  edit: all(...rules.map((rule) => rule.edit)),
});

export const higher = (...rules: readonly Rule[]): Rule => ({
  see: any(...rules.map((rule) => rule.see)),
  edit: any(...rules.map((rule) => rule.edit)),
});

/** The rule with edit only where `edit` holds too: elsewhere it is for reading. */
export const editOnlyIf = (edit: Formula, rule: Rule): Rule => ({
  see: rule.see,
  edit: all(rule.edit, edit),
});

/** The rule where `where` holds; elsewhere none. */
export const onlyWhere = (where: Formula, rule: Rule): Rule => ({
  see: all(rule.see, where),
  edit: all(rule.edit, where),
});

/** For what only leads somewhere or reads: see counts as edit. */
export const seeCountsAsEdit = (rule: Rule): Rule => ({ see: rule.see, edit: rule.see });

/** What the rule gives whatever the record is. */
export const leastOf = (rule: Rule): Rule => ALWAYS[answerOf(rule).least];

/** What the rule could give for some record. */
export const mostOf = (rule: Rule): Rule => ALWAYS[answerOf(rule).most];

export function levelOn(rule: Rule, record: RecordFacts): Level {
  return holds(rule.edit, record) ? EDIT : holds(rule.see, record) ? SEE : NONE;
}

export function answerOf(rule: Rule): Answer {
  return {
    least: rule.edit === true ? EDIT : rule.see === true ? SEE : NONE,
    most: rule.edit !== false ? EDIT : rule.see !== false ? SEE : NONE,
  };
}
