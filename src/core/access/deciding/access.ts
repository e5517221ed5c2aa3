import { bind, type UnknownAs } from '../../condition/bind';
import { withoutUnits } from '../../condition/formula';
import type { RecordFacts } from '../../condition/atom';
import type { List, Screen } from '../../model/definition';
import type { Id } from '../../model/id';
import type { AppElement } from '../../model/tree';
import { ASKS_RECORD, type Compiled, type PlanProgress } from './compile';
import { Doors } from './doors';
import { Grants } from './grants';
import { EDIT, NONE, SEE, type Answer, type Level } from './level';
import type { PlanStep } from './plan';
import type { Circumstances, Viewer } from './viewer';
import {
  ALWAYS,
  answerOf,
  dependsOnRecord,
  editOnlyIf,
  uniteRules,
  leastOf,
  levelOn,
  intersectRules,
  mostOf,
  ruleOf,
  seeCountsAsEdit,
  withoutRecord,
  type Rule,
} from './rule';

/**
 * What somebody gets of one definition, at one moment. Every question about access is asked here: by
 * pages, the API, the studio, explanations and checks.
 */
export abstract class Access {
  /** What protects records, actions and fields, as this viewer finds it. */
  readonly doors = new Doors(this);

  constructor(readonly compiled: Compiled) {}

  /** What the viewer holds, with who they are, their session and the moment: of this one alone. */
  abstract get held(): Grants;

  /**
   * What the element's gate gives within its containers, by the record at the element. For a following
   * door of data, its container's.
   */
  abstract gateRule(element: AppElement): Rule;

  /** For what is in a list on a record's screen: what its containers ask of the screen's record. */
  abstract outerRule(element: AppElement): Rule | undefined;

  /** What it takes to get the element: its gate, its containers and its door. */
  abstract rule(element: AppElement): Rule;

  /** What it takes to get a field of a record that is being made. */
  abstract newFieldRule(element: AppElement): Rule;

  /** What a step of the plan gives: for telling what an element's rule is made of. */
  abstract ruleAt(step: number): Rule;

  /** Which records pass a list's fixed filter, for this viewer. One in doubt does not. */
  abstract carriedRule(list: List): Rule;

  /** The element with this id. Throws where there is none. */
  element(id: Id): AppElement {
    const element = this.compiled.tree.get(id);
    if (!element) throw new Error(`There is no element with the id ${id}`);
    return element;
  }

  /**
   * For a kind of viewer, the same with all that is not known of it speaking for it: what somebody of that kind
   * could get. Else the access itself.
   */
  get most(): Access {
    return this;
  }

  /** The answer where no record is known; of a kind of viewer, what all of its people get, and what some could. */
  answer(element: AppElement): Answer {
    return this.withMost((access) => {
      const [rule, outer] = [access.rule(element), access.outerRule(element)];
      return answerOf(outer ? intersectRules(rule, outer) : rule);
    });
  }

  /** The answer on a record, taken as `level` takes it: least and most differ for a kind of viewer only. */
  answerOn(element: AppElement, record: RecordFacts | undefined, screenRecord?: RecordFacts): Answer {
    return this.withMost((access) => {
      const level = access.level(element, record, screenRecord);
      return { least: level, most: level };
    });
  }

  /** What is asked of this access, with the most of what a kind of viewer could get. */
  withMost(ask: (access: Access) => Answer): Answer {
    const [own, most] = [ask(this), this.most];
    return most === this ? own : { least: own.least, most: ask(most).most };
  }

  /**
   * The level on a record: the row's for what stands in a list, else the screen's. Without a record
   * it is what some record could give: for structure only, never for data. For a list on a record's
   * screen, `screenRecord` is what its containers are decided on.
   */
  level(element: AppElement, record: RecordFacts | undefined, screenRecord?: RecordFacts): Level {
    const on = levelOf(this.rule(element), record);
    const outer = this.outerRule(element);
    return outer ? (Math.min(on, levelOf(outer, screenRecord)) as Level) : on;
  }

  /** May the viewer open the screen, on this record where it shows one? */
  opens(screen: Screen, record: RecordFacts | undefined): boolean {
    if (screen.binds?.record === 'existing' && !record) return false;
    return this.level(this.element(screen.id), record) > NONE;
  }
}

const levelOf = (rule: Rule, record: RecordFacts | undefined): Level =>
  record ? levelOn(rule, record) : answerOf(rule).most;

/** What one viewer gets: the plan worked through with what they hold, step by step as it is asked for. */
class ViewerAccess extends Access {
  private readonly levels: Uint8Array;
  private readonly rules: Map<number, Rule>;
  private readonly spoken: Uint8Array;

  private made: Grants | undefined;
  private mostMade: Access | undefined;

  /** `worked` holds what was worked out before for somebody who is alike in all that the lines look at. */
  constructor(
    compiled: Compiled,
    private readonly viewer: Viewer,
    private readonly circumstances: Circumstances,
    private readonly unknown: UnknownAs,
    worked: PlanProgress,
  ) {
    super(compiled);
    this.levels = worked.levels;
    this.rules = worked.rules;
    this.spoken = worked.spoken;
  }

  /** Worked out when it is first asked for: where all is worked out already, nothing asks. */
  override get held(): Grants {
    return (this.made ??= new Grants(
      this.compiled.definition,
      this.viewer,
      this.circumstances,
      this.unknown,
    ));
  }

  override get most(): Access {
    const { compiled, viewer, circumstances, unknown } = this;
    if (unknown === 'for' || !compiled.asksUnknown(viewer, circumstances)) return this;
    return (this.mostMade ??= accessOf(compiled, viewer, circumstances, 'for'));
  }

  override gateRule({ number }: AppElement): Rule {
    return this.at(this.compiled.plan.gates[number] as number);
  }

  override outerRule({ number }: AppElement): Rule | undefined {
    const step = this.compiled.plan.outers[number] as number;
    if (step === EDIT) return undefined;
    const outer = this.at(step);
    return outer === ALWAYS[EDIT] ? undefined : outer;
  }

  override rule({ number }: AppElement): Rule {
    return this.at(this.compiled.plan.rules[number] as number);
  }

  override newFieldRule(element: AppElement): Rule {
    return this.at(this.compiled.plan.newField(element));
  }

  override ruleAt(step: number): Rule {
    return this.at(step);
  }

  override carriedRule(list: List): Rule {
    return this.at(this.compiled.plan.carried(list));
  }

  private at(step: number): Rule {
    const level = this.levels[step] as number;
    if (level <= EDIT) return ALWAYS[level as Level];
    if (level === ASKS_RECORD) return this.rules.get(step) as Rule;
    const rule = this.work(this.compiled.plan.steps[step] as PlanStep);
    if (dependsOnRecord(rule)) {
      this.levels[step] = ASKS_RECORD;
      this.rules.set(step, rule);
    } else this.levels[step] = rule === ALWAYS[EDIT] ? EDIT : rule === ALWAYS[NONE] ? NONE : SEE;
    return rule;
  }

  private work({ op, a, b, inNoUnit }: PlanStep): Rule {
    switch (op) {
      case 'always':
        return ALWAYS[a as Level];
      case 'gate': {
        const limit = this.at(a);
        return limit === ALWAYS[NONE] || !this.compiled.hasLines(b)
          ? limit
          : intersectRules(limit, this.compiled.given(this.held, this.spoken, b, inNoUnit));
      }
      case 'carried':
        return this.carried(a, inNoUnit);
      case 'lower': {
        const first = this.at(a);
        return first === ALWAYS[NONE] ? first : intersectRules(first, this.at(b));
      }
      case 'higher':
        return this.highest(a, b);
      case 'edit-if': {
        const rule = this.at(a);
        return rule.edit === false ? rule : editOnlyIf(this.at(b).edit, rule);
      }
      case 'see-as-edit':
        return seeCountsAsEdit(this.at(a));
      case 'least':
        return leastOf(this.at(a));
      case 'most':
        return mostOf(this.at(a));
      case 'without-record':
        return withoutRecord(this.at(a));
      case 'constant': {
        const rule = this.at(a);
        return dependsOnRecord(rule) ? ALWAYS[EDIT] : rule;
      }
      case 'asking': {
        const rule = this.at(a);
        return dependsOnRecord(rule) ? rule : ALWAYS[EDIT];
      }
      case 'if-own':
        return this.compiled.hasLines(this.compiled.plan.steps[a]?.b ?? -1) ? this.at(b) : ALWAYS[EDIT];
      case 'unless-followed':
        return this.at(this.compiled.hasLines(this.compiled.plan.steps[a]?.b ?? -1) ? a : b);
    }
  }

  private highest(from: number, until: number): Rule {
    const { many } = this.compiled.plan;
    let rule = ALWAYS[NONE];
    for (let n = from; n < until && rule !== ALWAYS[EDIT]; n++)
      rule = uniteRules(rule, this.at(many[n] as number));
    return rule;
  }

  private carried(n: number, inNoUnit = false): Rule {
    const { definition, tree, plan } = this.compiled;
    const list = plan.lists[n];
    if (!list?.filter) return ALWAYS[EDIT];
    const scope = { definition, entity: tree.entityOf(list.entity) };
    const bound = bind(this.held.facts, scope, list.filter, 'be true');
    const passes = inNoUnit ? withoutUnits(bound) : bound;
    return ruleOf(passes, passes);
  }
}

/**
 * What this viewer gets, in these circumstances. Viewers who are alike in all that the lines look at share what
 * is worked out of them, and nothing else: who they are, their session and the moment stay their own, since
 * filters and what looks after people ask of those. `unknown`: how what is not known of a kind of viewer speaks.
 *
 * @example
 * const access = accessOf(compile(LARKFIELD), viewerOfRole('volunteer'), at);
 * access.level(access.element('s_stores'), undefined) // → 2
 * access.level(access.element('item_lender'), undefined) // → 0
 */
export const accessOf = (
  compiled: Compiled,
  viewer: Viewer,
  circumstances: Circumstances,
  unknown: UnknownAs = 'against',
): Access =>
  new ViewerAccess(
    compiled,
    viewer,
    circumstances,
    unknown,
    compiled.workedFor(viewer, circumstances, unknown),
  );

/** The same, made for this viewer alone: for explaining, which also tells what does not count now. Nothing of it is kept. */
export const unsharedAccessOf = (
  compiled: Compiled,
  viewer: Viewer,
  circumstances: Circumstances,
  unknown: UnknownAs = 'against',
): Access => new ViewerAccess(compiled, viewer, circumstances, unknown, compiled.newlyWorked());
