import type { List } from '../../model/definition';
import { leadsOrReads, type AppElement } from '../../model/tree';
import { Access } from './access';
import type { Grants } from './grants';
import { editOnlyIf, intersectRules, type Rule } from './rule';

/**
 * What somebody gets who looks as another person: every decision is the lower of the two people's. What is
 * asked of *the viewer* (a list's filter, where they land) is asked of the other person. Where `reading`,
 * nothing can be changed either, whatever both may do. `own` is left out where the builder lets that
 * person's roles be stood in for in full.
 */
export class ActingAccess extends Access {
  private readonly rules = new Map<number, Rule>();

  constructor(
    private readonly theirs: Access,
    private readonly own: Access | undefined,
    private readonly reading: boolean,
  ) {
    super(theirs.compiled);
  }

  override get held(): Grants {
    return this.theirs.held;
  }

  override gateRule(element: AppElement): Rule {
    return this.both((access) => access.gateRule(element));
  }

  override outerRule(element: AppElement): Rule | undefined {
    const [a, b] = [this.theirs.outerRule(element), this.own?.outerRule(element)];
    return a && b ? intersectRules(a, b) : (a ?? b);
  }

  override rule(element: AppElement): Rule {
    let rule = this.rules.get(element.number);
    if (!rule) {
      rule = this.both((access) => access.rule(element));
      if (this.canChange(element)) rule = this.capped(rule);
      this.rules.set(element.number, rule);
    }
    return rule;
  }

  override newFieldRule(element: AppElement): Rule {
    return this.capped(this.both((access) => access.newFieldRule(element)));
  }

  override ruleAt(step: number): Rule {
    return this.both((access) => access.ruleAt(step));
  }

  override carriedRule(list: List): Rule {
    return this.theirs.carriedRule(list);
  }

  private both(ask: (access: Access) => Rule): Rule {
    return this.own ? intersectRules(ask(this.theirs), ask(this.own)) : ask(this.theirs);
  }

  /** The rule, for reading only where nothing may be changed. */
  private capped(rule: Rule): Rule {
    return this.reading ? editOnlyIf(false, rule) : rule;
  }

  /** Does its level of edit let data, people or the session be changed, rather than lead somewhere or read? */
  private canChange(element: AppElement): boolean {
    if (element.kind === 'rows') return false;
    if (element.kind === 'button' && element.node.effect.do === 'set-session') return true;
    return !leadsOrReads(this.compiled.tree, element);
  }
}
