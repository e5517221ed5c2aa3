import type { Values } from '../model/value';
import { all, any, holds, type Formula } from './formula';
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

/** For what only leads somewhere or reads: see counts as edit. */
export const seeCountsAsEdit = (rule: Rule): Rule => ({ see: rule.see, edit: rule.see });

export function levelOn(rule: Rule, values: Values): Level {
  return holds(rule.edit, values) ? EDIT : holds(rule.see, values) ? SEE : NONE;
}

export function answerOf(rule: Rule): Answer {
  return {
    least: rule.edit === true ? EDIT : rule.see === true ? SEE : NONE,
    most: rule.edit !== false ? EDIT : rule.see !== false ? SEE : NONE,
  };
}
